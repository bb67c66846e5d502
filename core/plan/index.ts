export * from './target'
export * from './limits'
export * from './against'
