<script setup lang="ts">
import { METHODS } from '#core/study'
import { formatChange, formatNumber } from '#core/units'
import type { MethodAgreement } from '#shared/schemas/other-method'
import { methods } from '~/bench-calls'

/** Other methods held against the folds, over the studio's clients: a device a line, never one history. */
const all = ref<MethodAgreement[]>([])
const { problem, tell } = useTelling()
onMounted(() => tell(async () => (all.value = await methods.agreement())))
const chosen = ref(0)
const shown = computed(() => all.value[chosen.value] ?? null)
</script>

<template>
  <section v-if="all.length > 0" class="mt-8" aria-labelledby="against-folds">
    <h2 id="against-folds" class="border-b-2 border-ink pb-1 text-lg font-bold">Other methods against the folds</h2>
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    <div class="mt-2 grid gap-x-10 gap-y-3 max-lg:grid-cols-[minmax(0,1fr)] lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      <ScrollTable label="Other methods against the folds">
        <table class="ruled self-start" data-methods>
          <thead>
            <tr>
              <th scope="col">Device</th>
              <th scope="col" class="right">Clients</th>
              <th scope="col" class="right">Bias, points</th>
              <th scope="col" class="right">95 % of differences</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(one, i) in all" :key="one.method + one.device">
              <th scope="row">
                <button
                  type="button"
                  class="text-left"
                  :class="{ 'underline underline-offset-4': i === chosen }"
                  @click="chosen = i"
                >
                  {{ one.device
                  }}<span class="block text-[15px] font-normal text-faded">{{ METHODS[one.method].name }}</span>
                </button>
              </th>
              <td class="figure right">{{ one.clients }}</td>
              <td class="figure right">
                <template v-if="one.agreement?.scale === 'plain'">
                  <span class="text-lg font-bold">{{ formatChange(one.agreement.bias.value) }}</span>
                  <span class="block text-sm text-faded"
                    >{{ formatChange(one.agreement.bias.low) }} to {{ formatChange(one.agreement.bias.high) }}</span
                  >
                </template>
                <template v-else-if="one.agreement">× {{ formatNumber(one.agreement.bias.value, 2) }}</template>
                <span v-else class="text-faded">three clients at least</span>
              </td>
              <td class="figure right">
                <template v-if="one.agreement?.scale === 'plain'"
                  >{{ formatChange(one.agreement.lower.value) }} to
                  {{ formatChange(one.agreement.upper.value) }}</template
                >
                <template v-else-if="one.agreement"
                  >× {{ formatNumber(one.agreement.lower.value, 2) }} to
                  {{ formatNumber(one.agreement.upper.value, 2) }}</template
                >
              </td>
            </tr>
          </tbody>
        </table>
      </ScrollTable>
      <AgreementPlot
        v-if="shown?.agreement"
        :agreement="shown.agreement"
        :pairs="shown.pairs"
        unit="% fat"
        :label="`Differences of ${shown.device} and the folds`"
      />
    </div>
  </section>
</template>
