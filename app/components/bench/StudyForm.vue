<script setup lang="ts">
import { v7 as uuid } from 'uuid'
import { findProtocol } from '#core/protocols'
import { SITES, type SiteId } from '#core/sites'
import { pairsForTem, peopleForBias, PEOPLE_WANTED, spreadOfDifference, type StudyKind } from '#core/study'
import { studyInput } from '#shared/schemas/study'
import { ASSUMED_ERRORS, TEM_MARKS } from '#core/error'
import type { Caliper } from '#shared/schemas/caliper'
import type { StaffRecord } from '#shared/schemas/account'
import { calipers as caliperCalls, staff as staffCalls } from '~/calls'
import { studies } from '~/bench-calls'
import { useMe } from '~/stores/me'

/** Setting a study up: what is compared, at which sites, by whom, and how many people that takes. */
const emit = defineEmits<{ made: [id: string]; leave: [] }>()
const store = useMe()
const kind = ref<StudyKind>('repeat')
const name = ref('')
const protocolId = ref('laboratory-7')
const left = ref(new Set<SiteId>())
const chosen = ref<string[]>([])
const agreed = ref(new Set<string>())
const group = ref(false)
const staff = ref<StaffRecord[]>([])
const all = ref<Caliper[]>([])
const problems = useProblems(['name', 'sites', 'pens', 'protocolId'])
const KINDS: { id: StudyKind; name: string; about: string }[] = [
  {
    id: 'repeat',
    name: 'One assessor, twice',
    about: 'Everybody is measured twice, the marks wiped in between: how far one hand agrees with itself.',
  },
  {
    id: 'assessors',
    name: 'Assessors side by side',
    about: 'The same people on the same day by each: who reads more, who less, and by how much.',
  },
  {
    id: 'calipers',
    name: 'Calipers side by side',
    about: 'One hand, several calipers, the same people: what each caliper adds or takes.',
  },
]

useOpening(async () => {
  const [people, calipers] = await Promise.all([staffCalls.list(), caliperCalls.list()])
  staff.value = people.filter(({ active, role }) => active && role !== 'recorder')
  all.value = calipers
  chosen.value = store.me ? [store.me.staff.id] : []
  agreed.value = new Set(chosen.value)
})
watch(kind, (now) => {
  chosen.value = now === 'calipers' ? all.value.map(({ id }) => id).slice(0, 2) : store.me ? [store.me.staff.id] : []
})
const sites = computed(() => (findProtocol(protocolId.value)?.sites ?? []).filter((site) => !left.value.has(site)))
const pens = computed(() =>
  (kind.value === 'calipers' ? all.value : staff.value).map(({ id, name: called }) => ({ id, name: called })),
)
const needed = computed(() => {
  const spread = spreadOfDifference(
    ASSUMED_ERRORS.folds.share,
    ASSUMED_ERRORS.folds.share * ASSUMED_ERRORS.markFactor,
    2,
  )
  return kind.value === 'repeat' ? pairsForTem(0.25) : peopleForBias(TEM_MARKS.fold.trained / 100, spread)
})

function turnPen(id: string) {
  const at = chosen.value.indexOf(id)
  if (kind.value === 'repeat') chosen.value = [id]
  else if (at >= 0) chosen.value = chosen.value.filter((one) => one !== id)
  else chosen.value = [...chosen.value, id]
}

function turnOver<Of>(set: Set<Of>, one: Of) {
  if (!set.delete(one)) set.add(one)
}

async function make() {
  const people = kind.value !== 'calipers'
  const made = chosen.value.map((id) => ({
    id: uuid(),
    staffId: people ? id : null,
    caliperId: people ? null : id,
    agreedOn: people && agreed.value.has(id) ? todayHere() : null,
  }))
  const study = {
    id: uuid(),
    name: name.value,
    kind: kind.value,
    protocolId: protocolId.value,
    sites: sites.value,
    pens: made,
    referencePenId: made[0]?.id ?? uuid(),
    group: group.value && kind.value === 'assessors',
  }
  const checked = studyInput.safeParse(study)
  if (!checked.success) {
    const fields = checked.error.issues.map(({ path, message }) => ({ field: String(path[0] ?? ''), message }))
    problems.problem.value = { message: fields[0]?.message ?? '', fields }
    return
  }
  if (await problems.send(() => studies.make(study))) emit('made', study.id)
}
</script>

<template>
  <form class="grid max-w-5xl gap-6 lg:grid-cols-2" novalidate data-study-form @submit.prevent="make">
    <div class="grid content-start gap-5">
      <fieldset class="grid gap-2">
        <legend class="mb-1 font-semibold">What is compared</legend>
        <label
          v-for="one in KINDS"
          :key="one.id"
          class="flex gap-3 border-l-4 py-1 pl-3"
          :class="kind === one.id ? 'border-ink bg-sheet' : 'border-rule'"
        >
          <input v-model="kind" type="radio" name="kind" :value="one.id" class="mt-1 size-5 shrink-0 accent-ink" />
          <span
            ><span class="font-semibold">{{ one.name }}</span
            ><span class="block text-[15px] text-faded">{{ one.about }}</span></span
          >
        </label>
      </fieldset>
      <TextField
        v-model="name"
        label="Name"
        name="name"
        maxlength="80"
        autocomplete="off"
        placeholder="Spring, both coaches"
        :problem="problems.byField.value.get('name')"
      />
      <fieldset class="grid gap-1">
        <legend class="font-semibold">
          {{
            kind === 'calipers'
              ? 'Which calipers'
              : kind === 'repeat'
                ? 'Who measures'
                : 'Who measures, the reference first'
          }}
        </legend>
        <div v-for="pen in pens" :key="pen.id" class="flex flex-wrap items-center gap-x-4">
          <label class="flex min-h-10 items-center gap-2">
            <input
              :type="kind === 'repeat' ? 'radio' : 'checkbox'"
              name="pens"
              class="size-5 accent-ink"
              :checked="chosen.includes(pen.id)"
              @change="turnPen(pen.id)"
            />
            {{ pen.name }}
            <span v-if="kind !== 'repeat' && chosen[0] === pen.id" class="text-sm text-faded">the reference</span>
          </label>
          <label
            v-if="kind !== 'calipers' && chosen.includes(pen.id)"
            class="flex min-h-10 items-center gap-2 text-[15px] text-faded"
          >
            <input
              type="checkbox"
              class="size-5 accent-ink"
              :checked="agreed.has(pen.id)"
              @change="turnOver(agreed, pen.id)"
            />
            agreed to be compared
          </label>
        </div>
        <p v-if="problems.byField.value.get('pens')" role="alert" class="text-sm font-semibold text-alert">
          {{ problems.byField.value.get('pens') }}
        </p>
      </fieldset>
      <TickField v-if="kind === 'assessors'" v-model="group" name="group"
        >All at once, each on their own tablet; what was measured is shown once everybody is done.</TickField
      >
    </div>
    <div class="grid content-start gap-5">
      <SetField v-model="protocolId" />
      <fieldset>
        <legend class="font-semibold">At which of its sites</legend>
        <div class="mt-1 grid grid-cols-2 gap-x-4">
          <label
            v-for="site in findProtocol(protocolId)?.sites ?? []"
            :key="site"
            class="flex min-h-10 items-center gap-2"
          >
            <input
              type="checkbox"
              name="sites"
              class="size-5 accent-ink"
              :checked="!left.has(site)"
              @change="turnOver(left, site)"
            />
            {{ SITES[site].name }}
          </label>
        </div>
        <p v-if="problems.byField.value.get('sites')" role="alert" class="text-sm font-semibold text-alert">
          {{ problems.byField.value.get('sites') }}
        </p>
      </fieldset>
      <div class="border-l-4 border-rule pl-3" data-power>
        <p class="font-semibold">How many people</p>
        <p class="text-[15px]">
          <template v-if="kind === 'repeat'"
            ><span class="figure font-bold">{{ needed }}</span> until the error is known to a quarter of
            itself.</template
          >
          <template v-else
            ><span class="figure font-bold">{{ needed }}</span> until a bias of 5 % at a site is seen in four of five
            studies, with the error assumed here.</template
          >
          {{ ' '
          }}<span class="text-faded"
            >{{ PEOPLE_WANTED.least }} at least, {{ PEOPLE_WANTED.accreditation }} for an accreditation.</span
          >
        </p>
      </div>
      <p v-if="problems.ofForm.value" role="alert" class="font-semibold text-alert">{{ problems.ofForm.value }}</p>
      <div class="flex gap-2">
        <button class="press press-first min-h-12 px-6">Set it up</button>
        <button type="button" class="press press-quiet min-h-12" @click="emit('leave')">Leave it</button>
      </div>
    </div>
  </form>
</template>
