<script setup lang="ts">
import type { Client, ClientInput } from '#shared/schemas/client'
import type { LengthUnit } from '#core/units'
import { recordDifferences } from './record-differences'

/** Somebody changed the record while this form was open: both, side by side, and which is to stand. */
const props = defineProps<{ stored: Client; mine: ClientInput; lengthUnit: LengthUnit }>()
const emit = defineEmits<{ mine: []; theirs: [] }>()

const differences = computed(() => recordDifferences(props.stored, props.mine, props.lengthUnit))
</script>

<template>
  <section
    class="mb-6 border-l-4 border-alert bg-sheet px-4 py-3"
    aria-labelledby="conflict"
    role="alert"
    data-conflict
  >
    <h2 id="conflict" class="text-lg font-bold">Somebody has changed this record since it was opened here</h2>
    <p v-if="differences.length === 0" class="mt-1">It says the same as yours.</p>
    <ScrollTable v-else label="Stored now and yours">
      <table class="ruled mt-2">
        <thead>
          <tr>
            <th scope="col"></th>
            <th scope="col">Stored now</th>
            <th scope="col">Yours</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in differences" :key="one.field">
            <th scope="row" class="!text-base">{{ one.label }}</th>
            <td>{{ one.stored }}</td>
            <td class="font-semibold">{{ one.mine }}</td>
          </tr>
        </tbody>
      </table>
    </ScrollTable>
    <div class="mt-3 flex flex-wrap gap-3">
      <button type="button" class="press press-first" @click="emit('mine')">Keep mine</button>
      <button type="button" class="press" @click="emit('theirs')">Keep what is stored</button>
    </div>
  </section>
</template>
