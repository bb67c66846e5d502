export * from './day'
export * from './zone'
export * from './written-date'
