import ICAL from 'ical.js'

/** An entry of a whole day as another library reads it. */
export interface ReadDay {
  uid: string
  title: string
  day: string
}

/** A visit as another library reads it from an iCalendar file. */
export interface ReadVisit {
  uid: string
  title: string
  place: string | null
  startsAt: string
  endsAt: string
  status: string
  sequence: number
}

function entries(text: string, wholeDay: boolean) {
  return new ICAL.Component(ICAL.parse(text) as never)
    .getAllSubcomponents('vevent')
    .map((component) => ({ component, event: new ICAL.Event(component) }))
    .filter(({ event }) => event.startDate.isDate === wholeDay)
}

/** Every entry of a whole day, read by ical.js. */
export function readDays(text: string): ReadDay[] {
  return entries(text, true).map(({ event }) => ({
    uid: event.uid,
    title: event.summary,
    day: event.startDate.toString(),
  }))
}

/** Every visit of an iCalendar file, read by ical.js. */
export function readCalendar(text: string): ReadVisit[] {
  return entries(text, false).map(({ component, event }) => {
    return {
      uid: event.uid,
      title: event.summary,
      place: event.location,
      startsAt: event.startDate.toJSDate().toISOString(),
      endsAt: event.endDate.toJSDate().toISOString(),
      status: String(component.getFirstPropertyValue('status')),
      sequence: event.sequence,
    }
  })
}
