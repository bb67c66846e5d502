<script setup lang="ts">
import { CAUTION_RULES, EFFECTS, sentenceOf, type CautionFacts } from '#core/cautions'

useHead({ title: 'Cautions, Oak Pinch' })

/** Somebody to whom the sentences can be said. */
const someone: CautionFacts = {
  sex: 'female',
  ageYears: 16,
  bmi: null,
  percent: null,
  largestFoldMm: null,
  flags: [],
  consent: false,
  guardianConsent: false,
}
</script>

<template>
  <div class="px-4 py-4 sm:px-6">
    <p class="mb-3 max-w-prose">
      These show wherever they apply. They are plain words and no diagnosis: licensed practice and local rules decide.
    </p>
    <ScrollTable label="Cautions">
      <table class="ruled">
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">What is said</th>
            <th scope="col">What it does</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="rule in CAUTION_RULES" :key="rule.code" class="align-top">
            <th
              scope="row"
              class="!border-b !border-rule !py-2 !text-base !font-semibold !whitespace-normal !text-ink sm:w-64"
            >
              {{ rule.when }}
            </th>
            <td>{{ sentenceOf(rule, someone) }}</td>
            <td class="text-[15px] sm:w-72">
              {{ rule.effects.map((effect) => EFFECTS[effect]).join('; ') || 'shown at every session that uses it' }}
            </td>
          </tr>
        </tbody>
      </table>
    </ScrollTable>
  </div>
</template>
