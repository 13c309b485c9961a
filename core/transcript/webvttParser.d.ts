declare module 'webvtt-parser' {
  export class WebVTTParser {
    parse(
      words: string,
      mode: string,
    ): {
      cues: { id: string; startTime: number; endTime: number; text: string }[]
      errors: { message: string }[]
    }
  }
}
