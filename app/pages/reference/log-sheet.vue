<script setup lang="ts">
import { findProtocol, PROTOCOLS } from '#core/protocols'
import { useMe } from '~/stores/me'

useHead({ title: 'Log sheet, Oak Pinch' })

const store = useMe()
const route = useRoute()
const router = useRouter()
const protocol = computed(() => findProtocol(String(route.query.protocol ?? '')) ?? PROTOCOLS['laboratory-7'])

function choose(id: string) {
  void router.replace({ query: { protocol: id } })
}

function print() {
  window.print()
}
</script>

<template>
  <div class="px-4 py-4 sm:px-6">
    <div class="no-print mb-4 flex flex-wrap items-end gap-4">
      <SetField class="w-96 max-w-full" :model-value="protocol.id" @update:model-value="choose" />
      <p class="max-w-prose pb-2 text-[15px] text-faded">
        For anybody, where there is no screen. A client’s own sheet, with last time beside it, is printed where a
        check-in is prepared; a filled one is typed in there.
      </p>
      <button class="press press-first ml-auto min-h-11" @click="print">Print</button>
    </div>
    <PaperSheet :protocol="protocol" :units="store.units" />
  </div>
</template>
