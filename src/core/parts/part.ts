import type { Declarations } from '../declarations';
import type { LayerValues } from '../defaults';
import type { Privacy, SiteRules } from '../delivery';
import type { ChapterLine, Fraction } from '../time';
import type { SheetPlace } from './place';
import type { PartName, PartsShown, PartValues, ShownValues } from './values';

/** A record's words as they are fitted to a site. */
export interface FittedTexts {
  title: string;
  text: string;
  tags: string[];
  chapters: ChapterLine[];
  /** The chapters' exact times in the file, in the order of `chapters`. */
  chapterTimes: Fraction[];
  /** Exact seconds of the file, where the last chapter ends. */
  duration?: Fraction;
}

/** What the parts of a video on one channel are made from: its record as it is in force there, and fitted to the site. */
export interface WantedFrom {
  words: FittedTexts;
  /** In force, whether the site takes them or not. */
  declarations: Declarations;
  /** SHA-256 of the picture that was chosen; undefined leaves it to the site. */
  pictureDigest: string | undefined;
  moment: Fraction | undefined;
  captions: PartValues['captions'];
  /** Site ids; undefined where the site has no groups. */
  playlists: string[] | undefined;
  privacy: Privacy;
  passwordMark: string | undefined;
}

/** One field of a part with two values, both in words, '' for nothing. */
export interface PartLine {
  field: string;
  was: string;
  is: string;
}

/** What the record takes over for one channel: values of its layer, and playlists by their site ids. */
export interface TakenOver {
  set?: Omit<LayerValues, 'playlists'> & { title?: string; text?: string };
  playlists?: string[];
}

/** What a part is taken over beside. */
export interface TakeOverFrom {
  /** Everything that the site shows. */
  shown: PartsShown;
  /** What a text that is written by hand becomes there. */
  textBecomes: (text: string) => string;
}

/** What one part of a video is: how it comes from the record, and how two of its values compare. */
export interface Part<N extends PartName> {
  /** What it is called where people read it. */
  label: string;
  /** Where on the Sheet it is changed. */
  place: SheetPlace;
  /** Whether it has to be right before people see the video; what need not keeps nothing closed where it fails. */
  mustBeRight: boolean;
  /** What is wanted of it; undefined where the site has no such part. */
  wanted(from: WantedFrom, site: SiteRules): PartValues[N] | undefined;
  /** What keeps a value from a site, in words; a last look at what goes out, whichever way it came. */
  finding?(value: PartValues[N], site: SiteRules): string | undefined;
  /** Whether two values are the same to who sees them: composed and decomposed signs are (Unicode, UAX #15). */
  same(a: PartValues[N], b: PartValues[N]): boolean;
  /** In what two values differ. @param titleOf the title of a playlist by its site id */
  changes(was: PartValues[N] | undefined, is: PartValues[N], titleOf: (id: string) => string): PartLine[];
  /** What a site that was given a value is to show; undefined where that is not compared. */
  expected(value: PartValues[N], site: SiteRules): ShownValues[N] | undefined;
  /** In what a site shows something else than it is to. */
  differences(meant: ShownValues[N], shown: ShownValues[N] | undefined): PartLine[];
  /** What a site that shows this has been given, as far as one can tell; none where it cannot be told. */
  asGiven?(shown: ShownValues[N] | undefined, given: PartValues[N] | undefined): PartValues[N];
  /** What the record takes over of it; undefined where it cannot, without the text that it stands in. */
  takeOver?(shown: ShownValues[N], from: TakeOverFrom): TakenOver;
  /** Whether it comes along where another part is taken over. */
  takenOverWith?(site: SiteRules): PartName | undefined;
  /** Texts in it that a search finds. */
  texts?(value: PartValues[N]): string[];
}
