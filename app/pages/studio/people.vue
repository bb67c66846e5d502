<script setup lang="ts">
import type { Role, StaffMember, StaffRecord } from '#shared/schemas/account'
import { useMe } from '~/stores/me'
import { staff } from '~/calls'

useHead({ title: 'People, Oak Pinch' })

const store = useMe()
const people = ref<StaffRecord[]>([])
const { problem, tell } = useTelling()
const adding = ref(false)
const SEES = [
  { id: 'all' as const, name: 'everybody’s' },
  { id: 'own' as const, name: 'their own, and those of nobody' },
]
/** A link just made: shown once. */
const link = ref<{ name: string; address: string; invited: boolean } | null>(null)

const ROLES: { id: Role; name: string }[] = [
  { id: 'lead', name: 'Lead coach' },
  { id: 'coach', name: 'Coach' },
  { id: 'recorder', name: 'Recorder' },
]

const told = ref<string | null>(null)

onMounted(() =>
  tell(async () => {
    people.value = await staff.list()
  }),
)

function change(id: string, body: { role: Role } | { active: boolean }) {
  return tell(async () => {
    people.value = await staff.change(id, body)
  })
}

/** Takes the second proof of somebody away who has neither phone nor paper any more. */
function takeCode({ id, name }: StaffMember) {
  return tell(async () => {
    await staff.removeSecondFactor(id)
    people.value = await staff.list()
    told.value = `${name} signs in with the password alone until they set a code up anew, and is signed out everywhere.`
  })
}

function makeLink({ id, name }: StaffMember) {
  return tell(async () => {
    const made = await staff.passwordLink(id)
    link.value = { name, address: made.link, invited: false }
  })
}

function added(person: StaffMember, address: string) {
  people.value = [...people.value, { ...person, active: true, hasCode: false }]
  link.value = { name: person.name, address, invited: true }
  adding.value = false
}
</script>

<template>
  <div class="grid w-full gap-x-12 gap-y-8 px-4 py-6 sm:px-6 lg:grid-cols-[2fr_minmax(320px,1fr)]">
    <div class="grid content-start gap-8">
      <section aria-labelledby="people" class="grid content-start gap-3">
        <h2 id="people" class="border-b-2 border-ink pb-2 text-lg font-bold">People</h2>
        <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
        <p v-if="told" role="status" class="border-l-4 border-signal bg-sheet px-4 py-3">{{ told }}</p>
        <div v-if="link" class="border-l-4 border-signal bg-sheet px-4 py-3" role="status" data-link>
          <p class="font-semibold">
            A link for {{ link.name }} to choose
            {{ link.invited ? 'their password, once, within a week' : 'a new password, once, within a day' }}
          </p>
          <p class="figure mt-1 break-all select-all">{{ link.address }}</p>
          <p class="mt-1 text-[15px] text-faded">
            It is not shown again. Hand it over in person or by a message only they read.
          </p>
        </div>
        <ul>
          <li
            v-for="person in people"
            :key="person.id"
            class="grid gap-x-6 gap-y-2 border-b border-rule py-3 sm:grid-cols-[1fr_auto] sm:items-center"
            :data-person="person.email"
          >
            <div class="min-w-0">
              <p class="font-semibold" :class="{ 'text-faded': !person.active }">
                {{ person.name }}<span v-if="!person.active" class="font-normal"> · account closed</span>
              </p>
              <p class="truncate text-[15px] text-faded">{{ person.email }}</p>
            </div>
            <p v-if="!store.isLead || person.id === store.me?.staff.id">
              {{ ROLES.find(({ id }) => id === person.role)?.name }}
            </p>
            <div v-else class="flex flex-wrap items-center gap-2">
              <template v-if="person.active">
                <PressGroup
                  :label="`What ${person.name} may do`"
                  :options="ROLES"
                  :model-value="person.role"
                  @update:model-value="$event && $event !== person.role && change(person.id, { role: $event })"
                />
                <button type="button" class="press press-quiet min-h-9" @click="makeLink(person)">New password</button>
                <button v-if="person.hasCode" type="button" class="press press-quiet min-h-9" @click="takeCode(person)">
                  Lost phone
                </button>
                <button type="button" class="press press-quiet min-h-9" @click="change(person.id, { active: false })">
                  Close account
                </button>
              </template>
              <button
                v-else
                type="button"
                class="press press-quiet min-h-9"
                @click="change(person.id, { active: true })"
              >
                Open again
              </button>
            </div>
          </li>
        </ul>
      </section>
      <LockRules v-if="store.isLead" />
      <SessionLimits v-if="store.isLead" />
    </div>
    <div class="grid content-start gap-8">
      <section v-if="store.isLead" aria-labelledby="add" class="grid content-start gap-4">
        <h2 id="add" class="border-b-2 border-ink pb-2 text-lg font-bold">Another person</h2>
        <p class="text-[15px] text-faded">
          Coaches measure. Recorders write on the sheets they are called to and see nothing else. Leads answer for
          people, records and rules as well.
        </p>
        <button v-if="!adding" type="button" class="press press-first justify-self-start" @click="adding = true">
          Invite by link
        </button>
        <StaffForm v-else @added="added" @leave="adding = false" />
      </section>
      <section v-if="store.isLead && store.me" aria-labelledby="sees" class="grid content-start gap-2">
        <h2 id="sees" class="border-b-2 border-ink pb-2 text-lg font-bold">Whose clients coaches see</h2>
        <PressGroup
          label="Whose clients coaches see"
          :options="SEES"
          :model-value="store.me.rules.coachesSee"
          @update:model-value="$event && tell(() => store.setRules({ coachesSee: $event }))"
        />
        <p class="text-sm text-faded">
          Leads see everybody. Whose client somebody is stands in their record, under Change; a stand-in sees the
          clients of who is away.
        </p>
      </section>
      <AwayPanel :people="people" />
    </div>
  </div>
</template>
