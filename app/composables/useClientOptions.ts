import { ref } from 'vue'
import type { Picked } from '~/components/forms/picked'
import { clients } from '~/calls'

/** Clients to pick from, found by part of their name as it is typed. */
export function useClientOptions() {
  const options = ref<Picked[]>([])
  let asked = 0
  async function find(typed: string) {
    asked += 1
    const own = asked
    const found = (await clients.find(typed)).clients.map(({ id, name, birthDate }) => ({
      id,
      name,
      note: `born ${sayDay(birthDate)}`,
    }))
    // An answer to less than what is typed by now is not shown.
    if (own === asked) options.value = found
  }
  return { options, find }
}
