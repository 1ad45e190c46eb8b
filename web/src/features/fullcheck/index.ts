export { default as FullCheckPage } from './FullCheckPage.vue'
