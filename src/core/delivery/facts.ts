import type { Fraction } from '../time';

/** The picture of a cut: size in pixels, `rate` in exact frames a second. */
export interface VideoFacts {
  codec: string;
  profile: string;
  width: number;
  height: number;
  rate: Fraction;
  pixelFormat: string;
  /** Bits a second, or undefined where the file does not say. */
  bitRate: number | undefined;
  /** What more is told; not of cuts that were read before this was asked. */
  more?: PictureFormat;
}

/** How a picture is coded, beside its codec. Names are those of ISO/IEC 23091-2 as ffprobe writes them. */
export interface PictureFormat {
  /** As the standard of the codec writes it: 4.1; '' where the file does not say. */
  level: string;
  /** Bits of one sample. */
  bits: number;
  /** Width to height of one pixel. */
  pixelShape: Fraction;
  /** Degrees clockwise by which a player turns it. */
  turned: number;
  /** Lines are drawn in two fields. */
  interlaced: boolean;
  primaries: string;
  transfer: string;
  matrix: string;
  range: string;
  /** By transfer function: perceptual quantisation or hybrid log-gamma (ITU-R BT.2100). */
  hdr: 'PQ' | 'HLG' | undefined;
  /** How a whole sphere lies in it (Spherical Video V1 and V2), as equirectangular. */
  sphere: string | undefined;
}

/** The sound of a cut: `sampleRate` in Hz. */
export interface AudioFacts {
  codec: string;
  sampleRate: number;
  channels: number;
  bitRate: number | undefined;
  /** Names of the channels, as stereo or 5.1(side); '' where the file does not say. */
  layout?: string;
  /** A language tag of the container (ISO 639-2); '' where the file does not say. */
  language?: string;
}

/** What a file was found to be. `container` is one of mp4, mov, mkv, webm, or what ffprobe calls it. */
export interface CutFacts {
  container: string;
  /** Exact seconds. */
  duration: Fraction;
  /** Bytes. */
  size: number;
  /** Bits a second of the whole file. */
  bitRate: number | undefined;
  video: VideoFacts;
  audio: AudioFacts | undefined;
  /** How many chapters stand inside the file; not told of cuts that were read before this was asked. */
  chaptersInside?: number;
  /** What more is told of the container and of all sound tracks; not of cuts that were read before this was asked. */
  more?: {
    /** Of an MP4 or MOV file, the one that comes first (ISO/IEC 14496-12, 4.3). */
    brands: string[];
    /** Whether the index stands before the pictures, so that a player can begin at once; of MP4 and MOV. */
    indexFirst: boolean | undefined;
    sounds: AudioFacts[];
    /** How many tracks of subtitles stand inside; not told of cuts that were read before this was asked. */
    subtitles?: number;
  };
}
