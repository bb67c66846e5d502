import { computed, ref } from 'vue'
import { MOST_PIN_TRIES } from '#shared/limits'
import type { LockPerson } from '#shared/schemas/device'
import { locks } from '~/calls'
import { openPage } from '~/locking'
import { everythingWaits } from '~/storage/deliver'
import { checkPinHere, forgetPinHere, rememberPin } from '~/storage/device-key'
import { useMe } from '~/stores/me'
import { problemOf } from './useApi'

const LONGEST = 8
const SHORTEST = 4

/** Where people were on this device when it locked, by person: they come back to it. */
const WHERE = 'oak-pinch-where'

function readWhere(): Record<string, string> {
  try {
    return JSON.parse(sessionStorage.getItem(WHERE) ?? '{}') as Record<string, string>
  } catch {
    return {}
  }
}

function noteWhere(staffId: string, path: string): void {
  try {
    sessionStorage.setItem(WHERE, JSON.stringify({ ...readWhere(), [staffId]: path }))
  } catch {
    // Without it they come back to the floor.
  }
}

/** A locked device: who can open it, the digits typed, and the answer to them. */
export function useLockScreen() {
  const store = useMe()
  const route = useRoute()
  const router = useRouter()
  const people = ref<LockPerson[]>([])
  /** Whose session the device holds; null: not known yet. */
  const owner = ref<string | null>(store.me?.staff.id ?? null)
  const chosenId = ref<string | null>(owner.value)
  const digits = ref('')
  const problem = ref<string | null>(null)
  const busy = ref(false)
  let triesHere = 0

  const chosen = computed(() => people.value.find(({ id }) => id === chosenId.value) ?? null)
  const canOpen = computed(() => digits.value.length >= SHORTEST && chosen.value !== null && !busy.value)

  /** Whoever this page was of is asked first, as far as it knows; then who else has signed in here. */
  async function load(): Promise<void> {
    const { me } = store
    if (me) people.value = [{ id: me.staff.id, name: me.staff.name, hasPin: me.hasPin }]
    try {
      // Locked by a page that was cut off, the server is told now.
      await locks.lock()
      const state = await locks.read()
      owner.value = state.staffId
      people.value = state.people
      if (!chosen.value) chosenId.value = state.people[0]?.id ?? null
    } catch (error) {
      const { status, message } = problemOf(error)
      if (status === 401) return passwordInstead()
      if (people.value.length === 0) problem.value = message
    }
  }

  function choose(id: string): void {
    chosenId.value = id
    digits.value = ''
    problem.value = null
  }

  function type(digit: string): void {
    if (busy.value) return
    problem.value = null
    digits.value = (digits.value + digit).slice(0, LONGEST)
  }
  const erase = () => (digits.value = digits.value.slice(0, -1))

  /** Without the server this page itself looks, five times; then only the server opens. */
  async function openHere(pin: string, why: string): Promise<boolean> {
    const right = chosenId.value === store.me?.staff.id ? await checkPinHere(pin) : null
    if (right === null) {
      problem.value = `${why} Until then only ${store.me?.staff.name ?? 'the person who locked it'} can open this device, with a PIN already used on this page.`
      return false
    }
    if (right) return true
    triesHere += 1
    if (triesHere >= MOST_PIN_TRIES) forgetPinHere()
    problem.value =
      triesHere >= MOST_PIN_TRIES ? 'This is not your PIN, and it was the fifth time.' : 'This is not your PIN.'
    return false
  }

  async function prove(pin: string, staffId: string): Promise<boolean> {
    try {
      await locks.open(staffId, pin)
      if (staffId === store.me?.staff.id) rememberPin(pin)
      return true
    } catch (error) {
      const { status, message } = problemOf(error)
      if (status === 401) {
        passwordInstead()
        return false
      }
      if (everythingWaits(status) && status !== 429) return openHere(pin, message)
      problem.value = message
      return false
    }
  }

  async function open(): Promise<void> {
    const staffId = chosenId.value
    if (!canOpen.value || staffId === null) return
    busy.value = true
    const pin = digits.value
    const right = await prove(pin, staffId)
    digits.value = ''
    busy.value = false
    if (right) await enter(staffId)
  }

  /** Whoever locked it finds the page as it was; anybody else theirs. */
  async function enter(staffId: string): Promise<void> {
    const { me } = store
    // A page opened while the device was locked knows nobody yet; the server has said whose session it was.
    const before = me?.staff.id ?? owner.value
    if (before !== null && before !== staffId) {
      if (me) noteWhere(before, route.fullPath)
      // The next person's page begins with nothing of the one before.
      await store.emptyDevice()
      openPage()
      location.replace(readWhere()[staffId] ?? '/')
      return
    }
    await store.goOn()
    if (route.path === '/locked') await router.replace(nextPathOf(route.query.next))
  }

  /** Signs in anew: the session behind the lock is not gone on with. */
  function passwordInstead(): void {
    void router.replace({ path: '/sign-in', query: route.path === '/locked' ? route.query : { next: route.fullPath } })
  }

  return { people, chosen, digits, problem, busy, canOpen, load, choose, type, erase, open, passwordInstead }
}
