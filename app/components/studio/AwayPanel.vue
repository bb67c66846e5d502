<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import type { AbsenceRecord, StaffRecord } from '#shared/schemas/account'
import { absences as calls } from '~/calls'
import { useMe } from '~/stores/me'

/** Holidays, and who stands in: a stand-in sees the clients of who is away, and bookings say so. */
const props = defineProps<{ people: readonly StaffRecord[] }>()
const store = useMe()
const list = ref<AbsenceRecord[]>([])
const problems = useProblems(['staffId', 'standInId', 'fromDay', 'toDay'])
onMounted(() =>
  problems.send(async () => {
    list.value = await calls.list()
  }),
)
const coaches = computed(() => props.people.filter(({ active, role }) => active && role !== 'recorder'))
const own = reactive({ staffId: store.me?.staff.id ?? '', standInId: '' as string, fromDay: '', toDay: '' })
const who = computed(() => coaches.value.map(({ id, name }) => ({ id, name })))
const standIns = computed(() => [{ id: '', name: 'nobody' }, ...who.value.filter(({ id }) => id !== own.staffId)])
const nameOf = (id: string | null) => props.people.find((one) => one.id === id)?.name ?? 'nobody'
const mayEnd = (one: AbsenceRecord) => store.isLead || one.staffId === store.me?.staff.id

async function add() {
  const done = await problems.send(async () => {
    list.value = await calls.add({ id: uuid(), ...own, standInId: own.standInId || null })
  })
  if (done) own.fromDay = own.toDay = ''
}
const end = (id: string) =>
  problems.send(async () => {
    list.value = await calls.end(id)
  })
</script>

<template>
  <section class="grid content-start gap-3" aria-labelledby="away">
    <h2 id="away" class="border-b-2 border-ink pb-2 text-lg font-bold">Away, and who stands in</h2>
    <p v-if="list.length === 0" class="text-[15px] text-faded">Nobody is away.</p>
    <ul>
      <li v-for="one in list" :key="one.id" class="flex items-center gap-3 border-b border-rule py-2" data-absence>
        <span class="min-w-0 flex-1"
          ><strong>{{ nameOf(one.staffId) }}</strong>, {{ sayDay(one.fromDay) }} to {{ sayDay(one.toDay)
          }}<span class="text-faded"
            >; {{ one.standInId ? `${nameOf(one.standInId)} stands in` : 'nobody stands in' }}</span
          ></span
        >
        <button v-if="mayEnd(one)" type="button" class="press press-quiet min-h-9" @click="end(one.id)">
          Take back
        </button>
      </li>
    </ul>
    <form class="grid gap-3" novalidate data-away @submit.prevent="add">
      <div class="grid gap-3 sm:grid-cols-2">
        <ListField v-if="store.isLead" v-model="own.staffId" label="Who is away" name="away" :options="who" />
        <ListField v-model="own.standInId" label="Who stands in" name="standIn" :options="standIns" />
      </div>
      <div class="grid gap-3 sm:grid-cols-2">
        <TextField
          v-model="own.fromDay"
          label="From"
          name="fromDay"
          type="date"
          :problem="problems.byField.value.get('fromDay')"
        />
        <TextField
          v-model="own.toDay"
          label="Until"
          name="toDay"
          type="date"
          :problem="problems.byField.value.get('toDay')"
        />
      </div>
      <p
        v-if="problems.byField.value.get('standInId') ?? problems.ofForm.value"
        role="alert"
        class="font-semibold text-alert"
      >
        {{ problems.byField.value.get('standInId') ?? problems.ofForm.value }}
      </p>
      <button class="press justify-self-start">Note it</button>
    </form>
  </section>
</template>
