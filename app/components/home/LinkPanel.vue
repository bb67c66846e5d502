<script setup lang="ts">
import { renderSVG } from 'uqr'
import { HOME_GIRTHS, HOME_PLACES } from '#core/home'
import { GIRTHS, type GirthSiteId } from '#core/sites'
import { LINK_SCOPES, type FromHome, type LinkScope } from '#shared/schemas/link'
import { fromHome as calls } from '~/week-calls'

/** A client's link: made here, shown once as an address and as a code to be read off the tablet, changed, ended. */
const props = defineProps<{
  clientId: string
  links: FromHome['links']
  photoConsent: boolean
  neutral: boolean
  /** The link of a minor is the guardian's. */
  minor: boolean
}>()
const emit = defineEmits<{ changed: [fromHome: FromHome] }>()

const NAMES: Record<LinkScope, string> = {
  'weigh-ins': 'Weight every morning',
  girths: 'The tape once a week',
  photographs: 'Pictures once a week',
  'take-home': 'The page to take home',
}
const ENDS = [14, 30, 90, 180, 366].map((id) => ({ id, name: id === 366 ? 'a year' : `${id} days` }))

const { problem, busy, tell } = useTelling()
const current = computed(() => props.links.find(({ revokedAt }) => revokedAt === null) ?? null)
const scope = ref<LinkScope[]>(
  current.value?.scope ??
    (props.neutral ? ['take-home'] : LINK_SCOPES.filter((one) => one !== 'photographs' || props.photoConsent)),
)
const days = ref(90)
/** Why more than the page to take home is asked for, where the gate wants a reason. */
const reason = ref(current.value?.reason ?? '')
const asksMore = computed(() => scope.value.some((one) => one !== 'take-home'))
const suspended = computed(() => current.value?.scope.filter((one) => !current.value?.counted.includes(one)) ?? [])
/** Places beyond or instead of the usual three. */
const sites = ref<GirthSiteId[]>(current.value?.sites.length ? current.value.sites : [...HOME_GIRTHS])
const PLACES = Object.values(GIRTHS)
  .filter((site) => !('former' in site))
  .map(({ id, name }) => ({
    id: id as GirthSiteId,
    name: HOME_PLACES[id as GirthSiteId]?.name ?? name,
  }))
const placesSaid = computed(
  () =>
    PLACES.filter(({ id }) => sites.value.includes(id))
      .map(({ name }) => name.toLowerCase())
      .join(', ') || 'the usual three',
)
function setPlace(site: GirthSiteId) {
  sites.value = sites.value.includes(site) ? sites.value.filter((one) => one !== site) : [...sites.value, site]
}
const made = ref<string | null>(null)
const code = computed(() =>
  made.value ? `data:image/svg+xml,${encodeURIComponent(renderSVG(made.value, { ecc: 'M', border: 2 }))}` : '',
)
const ending = ref(false)
const expired = computed(() => current.value !== null && Date.parse(current.value.expiresAt) < Date.now())
const { copy, copied, isSupported } = useClipboard({ copiedDuring: 2000 })

const has = (one: LinkScope) => scope.value.includes(one)
function set(one: LinkScope, on: boolean) {
  scope.value = LINK_SCOPES.filter((each) => (each === one ? on : scope.value.includes(each)))
}
function make() {
  return tell(async () => {
    const { link, fromHome } = await calls.makeLink(props.clientId, {
      scope: scope.value,
      days: days.value,
      sites: sites.value,
      reason: reason.value,
    })
    made.value = link
    emit('changed', fromHome)
  })
}
function change(id: string) {
  return tell(async () =>
    emit(
      'changed',
      await calls.changeLink(props.clientId, id, {
        scope: scope.value,
        days: days.value,
        sites: sites.value,
        reason: reason.value,
      }),
    ),
  )
}
function revoke(id: string) {
  ending.value = false
  made.value = null
  return tell(async () => emit('changed', await calls.revokeLink(props.clientId, id)))
}
</script>

<template>
  <section class="grid content-start gap-3" aria-labelledby="own-link">
    <h2 id="own-link" class="border-b-2 border-ink pb-1 text-lg font-bold">Their link</h2>
    <p v-if="minor" class="text-[15px]" data-guardian>Under 18: give it to the guardian, it is theirs.</p>
    <p v-if="suspended.length > 0" class="border-l-4 border-alert pl-3" data-suspended>
      <strong class="text-alert">Suspended:</strong> {{ suspended.map((one) => NAMES[one].toLowerCase()).join(', ') }}.
      Turn it off, or say why it goes on.
    </p>
    <p v-if="!current" class="text-[15px] text-faded">
      A secret address for their phone: weight, tape and pictures come in from home. They choose a PIN at the first
      opening.
    </p>
    <dl v-else class="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1 text-[15px]" data-link-state>
      <dt class="text-faded">Works until</dt>
      <dd :class="{ 'font-semibold text-alert': expired }">
        {{ sayFullDay(current.expiresAt) }}<template v-if="expired">: it has run out</template>
      </dd>
      <dt class="text-faded">Opened</dt>
      <dd>
        {{
          current.firstOpenedAt
            ? `first ${sayDay(current.firstOpenedAt)}, last ${sayAgo(current.lastOpenedAt ?? current.firstOpenedAt)}`
            : 'not yet'
        }}
      </dd>
      <template v-if="current.locked">
        <dt class="text-faded">Locked</dt>
        <dd class="font-semibold text-alert">The PIN was wrong five times. Renew it to open it again.</dd>
      </template>
      <dt class="text-faded">Made by</dt>
      <dd>{{ current.by }}, {{ sayDay(current.at) }}</dd>
    </dl>
    <div v-if="made" class="grid gap-2 border-l-4 border-signal bg-sheet px-4 py-3" role="status" data-made>
      <p class="font-semibold">Hold the code to their phone’s camera, or hand the address over</p>
      <img
        :src="code"
        alt="The address as a code to hold a camera to"
        class="mx-auto w-full max-w-64 bg-white p-2"
        data-code
      />
      <p class="figure text-sm break-all select-all">{{ made }}</p>
      <button v-if="isSupported" type="button" class="press press-quiet justify-self-start" @click="copy(made)">
        {{ copied ? 'Copied' : 'Copy the address' }}
      </button>
      <p class="text-[15px] text-faded">It is not shown again. Whoever opens it first chooses the PIN.</p>
    </div>
    <fieldset class="grid gap-2">
      <legend class="mb-1 font-semibold">What it opens</legend>
      <TickField
        v-for="one in LINK_SCOPES"
        :key="one"
        :name="`scope-${one}`"
        :model-value="has(one)"
        @update:model-value="set(one, $event)"
      >
        {{ NAMES[one]
        }}<span v-if="one === 'photographs' && !photoConsent" class="text-faded">
          (consent to photographs is not on record: they are not asked for)</span
        >
      </TickField>
    </fieldset>
    <details v-if="has('girths')" class="text-[15px]">
      <summary class="cursor-pointer py-1">Places of the tape: {{ placesSaid }}</summary>
      <div class="mt-1 flex flex-wrap gap-1">
        <button
          v-for="place in PLACES"
          :key="place.id"
          type="button"
          class="press min-h-9 px-2 text-[15px]"
          :class="sites.includes(place.id) ? 'press-first' : 'press-quiet'"
          :aria-pressed="sites.includes(place.id)"
          @click="setPlace(place.id)"
        >
          {{ place.name }}
        </button>
      </div>
    </details>
    <TextField
      v-if="(neutral || suspended.length > 0) && asksMore"
      v-model="reason"
      label="Why more than the page to take home"
      name="linkReason"
      hint="Goes on record."
      maxlength="300"
      autocomplete="off"
    />
    <ListField v-model="days" label="Works for" name="days" :options="ENDS" />
    <p v-if="problem" role="alert" class="font-semibold text-alert">{{ problem }}</p>
    <div class="flex flex-wrap gap-2">
      <button type="button" class="press press-first" :disabled="busy || scope.length === 0" @click="make">
        {{ current ? 'Renew the link' : 'Make the link' }}
      </button>
      <template v-if="current">
        <button
          type="button"
          class="press press-quiet"
          :disabled="busy || scope.length === 0"
          @click="change(current.id)"
        >
          Keep these settings
        </button>
        <button
          type="button"
          class="press press-quiet"
          :class="{ 'text-alert': ending }"
          @click="ending ? revoke(current.id) : (ending = true)"
        >
          {{ ending ? 'Yes, end it now' : 'End it' }}
        </button>
      </template>
    </div>
    <p v-if="current" class="text-sm text-faded">
      Renewing makes a new address and a new PIN; the old one stops at once. What was handed in stays.
    </p>
  </section>
</template>
