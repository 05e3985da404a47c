import { benchApi } from './benchApi.ts'
import { serve } from './serve.ts'

serve(benchApi)
