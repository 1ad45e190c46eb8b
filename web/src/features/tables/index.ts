export { default as TablesPage } from './TablesPage.vue'
export { default as TablePage } from './TablePage.vue'
export { default as CalendarPage } from './CalendarPage.vue'
