export * from './tables'
export * from './standing'
