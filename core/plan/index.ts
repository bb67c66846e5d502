export * from './target'
export * from './course'
export * from './limits'
export * from './against'
