export * from './standing'
export * from './entering'
export * from './measurings'
export * from './runner'
