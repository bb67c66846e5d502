export * from './protocols'
