import { NoTranscript } from '@core/transcript/cue'
import { type TextSaid, type TextTask, workOn } from './tasks'

export default function answer(task: TextTask): TextSaid {
  try {
    return { answer: workOn(task) }
  } catch (error) {
    if (error instanceof NoTranscript) return { noTranscript: error.message }
    throw error
  }
}
