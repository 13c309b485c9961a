import './noEval'
import { createPinia } from 'pinia'
import PrimeVue from 'primevue/config'
import ConfirmationService from 'primevue/confirmationservice'
import { createApp } from 'vue'
import Studio from './Studio.vue'
import { whenSignedOut } from './api/client'
import { createStudioRouter } from './router'
import { useSession } from './account/session'
import { useTheme } from './frame/theme'
import { preset } from './theme/preset'
import './theme/studio.css'

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
