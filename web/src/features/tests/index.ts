export { default as BridgeTests } from './BridgeTests.vue'
export type { TestLine } from './api'
