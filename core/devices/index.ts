export * from './lines'
