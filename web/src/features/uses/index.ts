export { default as UsesPage } from './UsesPage.vue'
