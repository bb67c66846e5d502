export * from './age'
export * from './masses'
export * from './checkin'
export * from './history'
