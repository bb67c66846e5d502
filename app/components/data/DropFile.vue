<script setup lang="ts">
import { useDropZone, useFileDialog } from '@vueuse/core'
import Upload from '@lucide/vue/dist/esm/icons/upload.mjs'
import { data as calls } from '~/data-calls'

/** A place to drop a file, or to choose one. */
const emit = defineEmits<{ brought: [file: { id: string; name: string }] }>()
const place = useTemplateRef<HTMLElement>('place')
const { problem, busy, tell } = useTelling()

const LIMIT_GB = 2
async function bring(files: readonly File[] | null) {
  const [file] = files ?? []
  if (!file) return
  if (file.size > LIMIT_GB * 1024 ** 3) {
    problem.value = `A file has at most ${LIMIT_GB} GB here: larger ones are brought in by the command.`
    return
  }
  await tell(async () => emit('brought', { id: (await calls.bring(file)).id, name: file.name }))
}
const { isOverDropZone } = useDropZone(place, { onDrop: (files) => void bring(files), multiple: false })
const { open, onChange } = useFileDialog({ multiple: false, reset: true })
onChange((files) => void bring(files ? [...files] : null))
</script>

<template>
  <div
    ref="place"
    class="grid justify-items-center gap-3 rounded border-2 border-dashed px-6 py-8 text-center"
    :class="isOverDropZone ? 'border-signal bg-wash' : 'border-contour'"
    data-drop
  >
    <Upload class="size-8 text-faded" aria-hidden="true" />
    <p class="max-w-md">
      Drop a paper log typed into a spreadsheet, a readings CSV, a FHIR bundle or an archive here.
      <span class="block text-[15px] text-faded"
        >Its columns are recognised, the rest you say once; you see every client and every problem before anything is
        stored.</span
      >
    </p>
    <button type="button" class="press press-first" :disabled="busy" @click="open()">
      {{ busy ? 'Taking it ...' : 'Choose a file' }}
    </button>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
  </div>
</template>
