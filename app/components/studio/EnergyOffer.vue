<script setup lang="ts">
/** Whether the studio offers energy and macros: off until its lead has read and accepted the scope of practice. */
const props = defineProps<{ since: string | null; lead: boolean }>()
const emit = defineEmits<{ offer: [offered: boolean] }>()

const reading = ref(false)
const accepted = ref(false)
const SCOPE = [
  'A coach explains, plans and follows. Prescribing a diet, treating an illness with food and judging blood values are for registered dietitians and doctors; the law of the place draws the line, and it differs.',
  'Figures here are estimates with an error, and are shown with it. They are for healthy adults.',
  'No deficit is planned for anybody under 18, pregnant or recently so, with an eating-disorder history or signs, underweight, or who asks for neutral mode. The application refuses it, and so do we by word of mouth.',
  'Under 1,200 kcal a day for women or 1,500 for men, under resting expenditure, or under 30 kcal for each kg of lean mass, a plan stops and a dietitian decides.',
  'Faster than 0.9 kg or 1 % of body weight a week, or under essential fat, no plan is kept.',
  'Signs of an eating disorder, fainting, missed periods or fractures end the plan and are referred, at once and kindly.',
  'What a client logs about food is health data: it is kept as such, and struck when they ask.',
]
</script>

<template>
  <section class="grid content-start gap-3" aria-labelledby="energy-offer" data-energy-offer>
    <h2 id="energy-offer" class="border-b-2 border-ink pb-2 text-lg font-bold">Energy and macros</h2>
    <p v-if="props.since">Offered since {{ sayDay(props.since) }}, when the page on scope of practice was accepted.</p>
    <p v-else class="text-faded">Not offered. A lead reads and accepts one page on scope of practice first.</p>
    <template v-if="lead">
      <div class="flex flex-wrap gap-3">
        <button v-if="!props.since && !reading" class="press" @click="reading = true">Read the page</button>
        <button v-if="props.since" class="press press-quiet" @click="emit('offer', false)">Offer it no longer</button>
      </div>
      <div v-if="reading && !props.since" class="grid gap-3">
        <h3 class="font-semibold">Scope of practice</h3>
        <ol class="grid list-decimal gap-2 pl-6 text-[15px]">
          <li v-for="sentence in SCOPE" :key="sentence">{{ sentence }}</li>
        </ol>
        <TickField v-model="accepted" name="scope">I have read this, and it holds in this studio.</TickField>
        <div class="flex gap-3">
          <button class="press press-first" :disabled="!accepted" @click="emit('offer', true)">Offer it</button>
          <button class="press press-quiet" @click="reading = false">Leave</button>
        </div>
      </div>
    </template>
  </section>
</template>
