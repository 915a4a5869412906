declare module 'webvtt-parser' {
  export type WebVTTNode = { type: 'text'; value: string } | { type: 'object'; children: WebVTTNode[] };
  export interface WebVTTCue {
    startTime: number;
    endTime: number;
    tree: { children: WebVTTNode[] };
  }
  export class WebVTTParser {
    constructor(entities: Record<string, string>);
    parse(text: string, mode: 'chapters' | 'subtitles'): { cues: WebVTTCue[]; errors: { message: string }[] };
  }
}
