<script setup lang="ts">
import type { ArchiveLook } from '#shared/schemas/data'

/** An archive held against what is here: new, the same, or another under the same id. */
const props = defineProps<{ archive: ArchiveLook }>()
const sum = (of: 'fresh' | 'same' | 'conflict') => props.archive.tables.reduce((all, one) => all + one[of], 0)
const FIGURES = [
  { id: 'fresh', name: 'new' },
  { id: 'same', name: 'the same' },
  { id: 'conflict', name: 'different here' },
] as const
</script>

<template>
  <div class="grid gap-3" data-archive-look>
    <p>
      An archive of <strong>{{ archive.studio }}</strong> with {{ archive.photos }} photographs:
      <strong>{{ sum('fresh') }} rows are new</strong>, {{ sum('same') }} are here already<template
        v-if="sum('conflict') > 0"
        >, and {{ sum('conflict') }} are here with other values: what is here stays</template
      >.
    </p>
    <ScrollTable label="Tables of the archive">
      <table class="min-w-96 border-collapse">
        <thead>
          <tr class="border-b-2 border-ink text-left">
            <th class="py-1 pr-6">Table</th>
            <th v-for="one in FIGURES" :key="one.id" class="py-1 pl-6 text-right">{{ one.name }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in archive.tables" :key="one.table" class="border-b border-rule">
            <td class="py-1 pr-6">{{ one.table.replaceAll('_', ' ') }}</td>
            <td v-for="figure in FIGURES" :key="figure.id" class="figure py-1 pl-6 text-right">
              <span :class="{ 'text-faded': one[figure.id] === 0 }">{{ one[figure.id] }}</span>
            </td>
          </tr>
        </tbody>
      </table>
    </ScrollTable>
  </div>
</template>
