export { default as IncidentPage } from './IncidentPage.vue'
export { default as IncidentRow } from './IncidentRow.vue'
export { default as IncidentsPage } from './IncidentsPage.vue'
export type { Incident } from './api'
