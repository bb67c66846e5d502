export * from './dates'
export * from './length'
export * from './bookings'
export * from './what-to-wear'
