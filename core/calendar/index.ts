export * from './day'
export * from './zone'
