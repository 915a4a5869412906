import { type Declarations, declarationFindings } from '../declarations';
import type { CutFacts, Privacy, SiteRules } from '../delivery';
import type { SheetPlace } from '../parts';
import type { Moment, ReleaseWay } from '../release';
import type { FittedWords } from './words-for-site';

/** Something that keeps a video from going to a channel. */
export interface Missing {
  place: SheetPlace;
  what: string;
  /** A text that looks like a blank; a person may say that it is meant as it stands. */
  blank?: string;
}

/** The picture that was chosen; `size` in bytes. */
export interface PictureFacts {
  width: number;
  height: number;
  size: number;
  type: string;
}

/** What readiness is judged by; `facts` are undefined until the cut has arrived and been read. */
export interface ReadinessInput {
  /** The words as they are fitted to the site. */
  fitted: FittedWords;
  declarations: Declarations;
  privacy: Privacy;
  /** What those are told who may see it with a password. */
  password?: string;
  /** What it is to wait for before it opens, and the set time. */
  waitsFor?: Exclude<ReleaseWay, 'by itself'>;
  opensAt?: Moment;
  facts: CutFacts | undefined;
  cutRefused: string | undefined;
  /** Why no file can be made of the cut that the site takes. */
  fileRefused: string | undefined;
  picture: PictureFacts | undefined;
}

const WAITS = {
  'on my word': 'for you',
  'at a time': 'for a time',
  together: 'for the others',
  'first showing': 'for a time',
} as const;

/** What keeps a video from going to a site, in the order of the Sheet; none means that it is ready. */
export function missingFor(input: ReadinessInput, site: SiteRules): Missing[] {
  const { fitted, facts } = input;
  const missing: Missing[] = [];
  const need = (place: SheetPlace, what: string | undefined) => what && missing.push({ place, what });

  if (input.cutRefused) need('cut', input.cutRefused);
  need('cut', input.fileRefused);
  missing.push(...fitted.findings);
  for (const what of pictureFindings(input.picture, site, facts)) need('picture', what);
  for (const { field, what } of declarationFindings(input.declarations, site.declares, site.name)) {
    need(`declared-${field}`, what);
  }
  if (!(input.privacy in site.privacies)) need('privacy', privacyMissing(input.privacy, site));
  if (input.waitsFor && site.opensItself) {
    need('privacy', `${site.name} opens it as soon as it is approved, and cannot wait ${WAITS[input.waitsFor]}`);
  } else if (input.privacy === 'password' && input.password === '') {
    need('privacy', 'Say the password');
  } else if ((input.waitsFor === 'at a time' || input.waitsFor === 'first showing') && !input.opensAt) {
    need('privacy', 'Say at what time it opens');
  }
  return missing;
}

/**
 * Why a site does not take a picture as its thumbnail.
 * @param picture the one chosen; undefined where the site is to take its own
 * @param facts of the cut, whose shape some sites ask for
 */
export function pictureFindings(
  picture: PictureFacts | undefined,
  site: SiteRules,
  facts: CutFacts | undefined,
): string[] {
  const rules = site.picture;
  if (!picture || typeof rules !== 'object') return [];
  const findings: string[] = [];
  if (!rules.types.includes(picture.type)) findings.push(`${site.name} does not take pictures of type ${picture.type}`);
  if (picture.size > rules.largest) {
    const mega = (bytes: number) => `${(bytes / 1e6).toFixed(1)} MB`;
    findings.push(`The picture has ${mega(picture.size)}; ${site.name} takes ${mega(rules.largest)}`);
  }
  if (picture.width < rules.narrowest) {
    findings.push(`The picture is ${picture.width} wide; ${site.name} wants at least ${rules.narrowest}`);
  }
  const shape = rules.shape === 'as the cut' ? facts?.video : rules.shape;
  if (shape) {
    const { width, height } = shape;
    // One pixel of rounding is allowed for: 1366×768 is taken as 16:9.
    if (Math.abs(picture.width * height - picture.height * width) > Math.max(width, height)) {
      findings.push(`The picture is ${picture.width}×${picture.height}; ${site.name} wants ${width}:${height}`);
    }
  }
  return findings;
}

const PRIVACY_NAMES: Record<Privacy, string> = {
  everyone: 'for everyone',
  link: 'for people with the link',
  password: 'for people with a password',
  private: 'only for its owner',
};

function privacyMissing(privacy: Privacy, site: SiteRules): string {
  const offered = Object.values(site.privacies).join(', ');
  return `${site.name} has nothing that is ${PRIVACY_NAMES[privacy]}; choose for this channel: ${offered}`;
}
