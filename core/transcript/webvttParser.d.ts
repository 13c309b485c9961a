declare module 'webvtt-parser' {
  export interface ParsedCue {
    id: string
    startTime: number
    endTime: number
    text: string
  }
  export class WebVTTSerializer {
    serialize(cues: readonly ParsedCue[]): string
  }
  export class WebVTTParser {
    parse(
      words: string,
      mode: string,
    ): {
      cues: ParsedCue[]
      errors: { message: string }[]
    }
  }
  const both: { WebVTTParser: typeof WebVTTParser; WebVTTSerializer: typeof WebVTTSerializer }
  export default both
}
