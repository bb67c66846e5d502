import ICAL from 'ical.js'

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

/** Every visit of an iCalendar file, read by ical.js. */
export function readCalendar(text: string): ReadVisit[] {
  const calendar = new ICAL.Component(ICAL.parse(text) as never)
  return calendar.getAllSubcomponents('vevent').map((component) => {
    const event = new ICAL.Event(component)
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
