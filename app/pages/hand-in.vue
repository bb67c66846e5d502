<script setup lang="ts">
import Moon from '@lucide/vue/dist/esm/icons/moon.mjs'
import Sun from '@lucide/vue/dist/esm/icons/sun.mjs'

definePageMeta({ layout: 'phone' })
useHead({ title: 'From home', link: [{ rel: 'manifest', href: '/hand-in.webmanifest' }] })

const theme = useTheme()
const hand = useHandIn()
const { home, shut, offline, waiting } = hand
type Screen = 'morning' | 'tape' | 'pictures' | 'words' | 'handed-in' | 'thanks'
const screen = ref<Screen>('morning')
const token = ref<string | null>(null)
const loaded = ref(false)

const router = useRouter()
/** The token leaves the address bar, and what the router keeps of the way here, before anything else is done. */
async function takeToken() {
  const found = /^#([\w-]{43})$/.exec(location.hash)?.[1] ?? null
  if (location.hash) await router.replace('/hand-in')
  return found
}

async function enter() {
  token.value = null
  await hand.load()
  loaded.value = true
}
/** A bathroom at six is dim: whoever has set their phone so is not dazzled. */
function dimWhereWished() {
  if (localStorage.getItem('oak-pinch-theme') === null && matchMedia('(prefers-color-scheme: dark)').matches)
    theme.value = 'dim'
}

onMounted(async () => {
  dimWhereWished()
  token.value = await takeToken()
  // A phone that is signed in already needs no token; another link, or none yet, is opened.
  if (!token.value) await enter()
})
useEventListener('hashchange', async () => (token.value = (await takeToken()) ?? token.value))

const refused = computed(() => waiting.value.filter((one) => one.refused))
const onTheWay = computed(() => waiting.value.length - refused.value.length)

async function startWeek() {
  await hand.begin()
  screen.value = home.value?.scope.includes('girths') ? 'tape' : afterTape()
}
const afterTape = (): Screen => (home.value?.scope.includes('photographs') ? 'pictures' : 'words')
async function finish() {
  await hand.handIn()
  screen.value = 'thanks'
}
const beforeWords = (): Screen =>
  home.value?.scope.includes('photographs') ? 'pictures' : home.value?.scope.includes('girths') ? 'tape' : 'morning'
</script>

<template>
  <div class="flex flex-1 flex-col gap-4">
    <header class="flex items-center gap-2">
      <ProductMark class="size-6" />
      <span class="min-w-0 flex-1 truncate text-[17px] text-faded">{{ home?.studioName }}</span>
      <button
        type="button"
        class="grid size-12 place-items-center"
        :aria-label="theme === 'dim' ? 'Light' : 'Dim'"
        @click="theme = theme === 'dim' ? 'light' : 'dim'"
      >
        <component :is="theme === 'dim' ? Sun : Moon" class="size-6" aria-hidden="true" />
      </button>
    </header>
    <p
      v-if="loaded && !shut && (offline || onTheWay > 0)"
      role="status"
      class="rounded bg-sheet px-4 py-2 text-[17px]"
      data-on-the-way
    >
      <template v-if="onTheWay > 0">Kept on this phone; it goes out as soon as there is a network.</template>
      <template v-else>No network at the moment. Everything works; it goes out later.</template>
    </p>
    <div
      v-for="one in refused"
      :key="one.id"
      role="alert"
      class="grid gap-2 rounded border-l-6 border-alert bg-sheet px-4 py-3 text-[17px]"
      data-refused
    >
      <p>{{ one.refused }}</p>
      <button type="button" class="press min-h-12" @click="hand.takeBack(one)">
        {{ one.kind === 'week' ? 'Change it' : 'Leave it' }}
      </button>
    </div>

    <PhoneDoor v-if="token" :token="token" @open="enter" />
    <div v-else-if="shut" class="grid flex-1 content-center gap-4">
      <p role="alert" class="text-2xl" data-shut>{{ shut }}</p>
    </div>
    <template v-else-if="home">
      <PhoneMorning v-if="screen === 'morning'" :hand="hand" @week="startWeek" @look="screen = 'handed-in'" />
      <PhoneTape v-else-if="screen === 'tape'" :hand="hand" @done="screen = afterTape()" @back="screen = 'morning'" />
      <PhonePictures
        v-else-if="screen === 'pictures'"
        :hand="hand"
        @done="screen = 'words'"
        @back="screen = home.scope.includes('girths') ? 'tape' : 'morning'"
      />
      <PhoneWords v-else-if="screen === 'words'" :hand="hand" @done="finish" @back="screen = beforeWords()" />
      <PhoneHandedIn v-else-if="screen === 'handed-in'" :hand="hand" @back="screen = 'morning'" />
      <div v-else class="flex flex-1 flex-col gap-4" data-thanks>
        <h1 class="pt-10 text-4xl font-bold">Thank you</h1>
        <p class="text-xl">
          {{
            onTheWay > 0
              ? 'The week is kept on this phone and goes out with the next network.'
              : 'The week is with your coach.'
          }}
        </p>
        <button type="button" class="press press-first mt-auto min-h-16 text-xl" @click="screen = 'morning'">
          Done
        </button>
      </div>
    </template>
    <p v-else-if="loaded" class="grid flex-1 content-center text-xl">
      No network, and nothing is kept on this phone yet. Please open the link once with a network.
    </p>
  </div>
</template>
