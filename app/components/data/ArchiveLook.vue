<script setup lang="ts">
import type { ArchiveLook } from '#shared/schemas/data'

/** An archive compared with what is here: rows that are new, the same, or different under the same id. */
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
    <p class="text-[15px] text-faded" data-stays-out>
      People, passwords, PINs, links, rules and the audit log of the archive stay out. Work of people who are not on
      your staff is shown without a name. Everything that comes in is marked with this file and your name.
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
