import type { Stage } from '../bench/stages/stage.ts';
import { t } from '../words/words.ts';

/** A small job that a page of the guide leads through. */
export interface GuideJob {
  /** The stage that it opens at. */
  readonly stage: Stage;
  /** The drawing that lies on its bed, by the name of the page; without one, the bed is empty. */
  readonly hasDrawing: boolean;
}

export interface GuidePage {
  readonly slug: string;
  readonly title: string;
  /** The page as Markdown, without its title. */
  readonly text: string;
  /** The stage that it is about; null for a small job. */
  readonly stage: Stage | null;
  readonly job: GuideJob | null;
}

const aboutStages: readonly Stage[] = ['bed', 'art', 'colours', 'fit', 'recipe', 'check', 'burn'];

/** The small jobs, from the easiest on. */
const jobs: Readonly<Record<string, GuideJob>> = {
  'cut-a-name-tag': { stage: 'art', hasDrawing: true },
  'fold-a-card': { stage: 'colours', hasDrawing: true },
  'many-from-one-sheet': { stage: 'art', hasDrawing: true },
  'a-badge-for-each-name': { stage: 'fit', hasDrawing: true },
  'engrave-the-back-of-a-mirror': { stage: 'art', hasDrawing: true },
  'let-in-an-inlay': { stage: 'fit', hasDrawing: true },
  'make-a-box': { stage: 'bed', hasDrawing: false },
  'engrave-a-photo': { stage: 'art', hasDrawing: false },
  'trace-a-drawing': { stage: 'art', hasDrawing: false },
  'burn-on-an-object': { stage: 'art', hasDrawing: true },
  'find-the-kerf': { stage: 'fit', hasDrawing: false },
  'a-new-material': { stage: 'recipe', hasDrawing: false },
  'go-on-after-a-stop': { stage: 'burn', hasDrawing: true },
};

/**
 * The pages of the guide in their order: the stages, then the small jobs.
 * @param files each page as Markdown, by its slug; the first line is its title
 * @throws Error for a page that has no file
 */
export function guidePages(files: Readonly<Record<string, string>>): GuidePage[] {
  const page = (slug: string, stage: Stage | null): GuidePage => {
    const [, title, text] = /^# (.+)\n+([\s\S]*)$/.exec(files[slug] ?? '') ?? [];
    if (!title) throw new Error(t('The guide has no page “{{slug}}”.', { slug }));
    return { slug, title, text, stage, job: jobs[slug] ?? null };
  };
  return [...aboutStages.map((stage) => page(stage, stage)), ...Object.keys(jobs).map((slug) => page(slug, null))];
}

/** Pages that all of the words that are sought stand in; those that have them in the title come first. */
export function soughtPages(pages: readonly GuidePage[], sought: string): GuidePage[] {
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const has = (text: string) => words.every((word) => text.toLowerCase().includes(word));
  const inTitle = pages.filter(({ title }) => has(title));
  return [...inTitle, ...pages.filter((page) => !inTitle.includes(page) && has(`${page.title} ${page.text}`))];
}
