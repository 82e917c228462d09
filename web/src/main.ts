import '@fontsource-variable/atkinson-hyperlegible-next'
import './styles/tokens.css'
import './styles/base.css'
import './styles/element.css'

import { createApp } from 'vue'

import App from './App.vue'
import workerUrl from './offline/sw.ts?worker&url'
import { router } from './router'

createApp(App).use(router).mount('#app')

// So that the stand works without a line, where the browser lets it.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  navigator.serviceWorker.register(workerUrl, { scope: '/' }).catch((thrown: unknown) => {
    console.warn('The stand does not work without a line here:', thrown)
  })
