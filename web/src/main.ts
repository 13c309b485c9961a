import './platform/noEval'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import ConfirmationService from 'primevue/confirmationservice'
import { createApp } from 'vue'
import Studio from './app/Studio.vue'
import { whenSignedOut } from './platform/api/client'
import { createStudioRouter } from './app/router'
import { useSession } from './people/account/session'
import { useTheme } from './platform/theme/theme'
import { preset } from './platform/theme/preset'
import './platform/theme/studio.css'

const app = createApp(Studio)
app.use(createPinia())
app.use(PrimeVue, {
  theme: {
    preset,
    options: { darkModeSelector: '[data-theme="dark"]', cssLayer: { name: 'primevue', order: 'primevue' } },
  },
})
app.use(ConfirmationService)
useTheme()
const router = createStudioRouter()
app.use(router)

whenSignedOut(() => useSession().runOut())
app.mount('#studio')
