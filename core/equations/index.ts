export * from './equation'
export * from './density'
export * from './estimate'
export * from './registry'
