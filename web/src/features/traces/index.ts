export { default as TracesPage } from './TracesPage.vue'
export { default as TracePage } from './TracePage.vue'
export { default as TraceTable } from './TraceTable.vue'
