const LEAVING = 'oak-pinch-leaving'

let here = false

/** Notes that somebody has signed out on this device and the server may not know yet. */
export function noteLeaving(leaving: boolean): void {
  here = leaving
  try {
    if (leaving) localStorage.setItem(LEAVING, '1')
    else localStorage.removeItem(LEAVING)
  } catch {
    // Without plain storage it holds while this page is open.
  }
}

/** Whether a sign-out on this device has not reached the server yet: until then nobody is signed in here. */
export function isLeaving(): boolean {
  try {
    return here || localStorage.getItem(LEAVING) !== null
  } catch {
    return here
  }
}
