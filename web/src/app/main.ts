import '@fontsource-variable/atkinson-hyperlegible-next'
import '@fontsource-variable/atkinson-hyperlegible-mono'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import './theme.css'
import './parts.css'

createApp(App).use(router).mount('#app')
