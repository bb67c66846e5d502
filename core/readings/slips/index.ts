export * from './slip'
export * from './check'
