import { channelsOf, colourOfChannels } from '../../document/channels.ts';
import type { FadeStop } from '../../document/fade.ts';
import type { Colour } from '../../document/item.ts';
import { meanOf, meanOfStops } from '../mean-colour.ts';
import { type Context, readShare } from './context.ts';
import type { Gradient } from './gradient.ts';
import { everyElement, type StyleSheet } from './style.ts';
import { readColour } from './values.ts';
import type { SvgElement } from './xml.ts';

/** What a `fill` or `stroke` comes to. */
export interface ReadPaint {
  readonly colour: Colour | null;
  /** How solid it is, from 0 to 1. */
  readonly alpha: number;
  /** What was not taken as drawn. */
  readonly trouble: 'gradient' | 'pattern' | 'not-a-colour' | null;
  /** The gradient whose mean the colour is. */
  readonly gradient?: Gradient;
}

const none: ReadPaint = { colour: null, alpha: 0, trouble: null };

/** What a gradient takes over from the one that it refers to, where it does not say it itself. */
const handedOn = [
  ...['x1', 'y1', 'x2', 'y2', 'cx', 'cy', 'r', 'fx', 'fy', 'fr'],
  ...['gradientUnits', 'gradientTransform', 'spreadMethod'],
];

const withoutMarker = (context: Context): Context => ({ ...context, contextFill: 'none', contextStroke: 'none' });

/** Reads paints, with the mean colour of gradients and patterns. */
export class PaintReader {
  private readonly servers = new Map<SvgElement, ReadPaint>();
  private readonly known = new Map<string, ReadPaint>();

  constructor(
    private readonly byId: ReadonlyMap<string, SvgElement>,
    private readonly sheet: StyleSheet,
  ) {}

  read(text: string, context: Context): ReadPaint {
    const before = this.known.get(text);
    if (before) return before;
    if (text === 'none') return none;
    const said = text.trim();
    if (said === 'none' || said === 'transparent') return none;
    if (said === 'context-fill') return this.read(context.contextFill, withoutMarker(context));
    if (said === 'context-stroke') return this.read(context.contextStroke, withoutMarker(context));
    if (said.toLowerCase() === 'currentcolor') return this.read(context.color, { ...context, color: '#000000' });
    if (said.startsWith('url(')) {
      const [, name = '', fallback = ''] = /^url\(\s*["']?#?([^"')]*)["']?\s*\)\s*(.*)$/.exec(said) ?? [];
      const server = this.byId.get(name);
      if (!server) return fallback === '' ? none : this.read(fallback, context);
      return this.server(server, new Set());
    }
    const colour = readColour(said);
    const paint: ReadPaint = colour
      ? { ...colour, trouble: null }
      : { colour: '#000000', alpha: 1, trouble: 'not-a-colour' };
    this.known.set(text, paint);
    return paint;
  }

  private server(element: SvgElement, seen: Set<SvgElement>): ReadPaint {
    const known = this.servers.get(element);
    if (known) return known;
    if (seen.has(element)) return none;
    seen.add(element);
    let paint: ReadPaint = none;
    if (element.name === 'pattern') paint = this.pattern(element, seen);
    else if (element.name === 'linearGradient' || element.name === 'radialGradient')
      paint = this.gradient(element, seen);
    this.servers.set(element, paint);
    return paint;
  }

  private inherited(element: SvgElement): SvgElement | undefined {
    return this.byId.get((element.attributes.href ?? '').replace(/^#/, ''));
  }

  private gradient(element: SvgElement, seen: Set<SvgElement>): ReadPaint {
    const other = this.inherited(element);
    const behind = other ? this.server(other, seen) : none;
    const stops = this.stops(element) ?? behind.gradient?.stops ?? [];
    if (stops.length === 0) return none;
    const own = Object.fromEntries(
      handedOn.flatMap((name) => {
        const said = element.attributes[name] ?? behind.gradient?.attributes[name];
        return said === undefined ? [] : [[name, said]];
      }),
    );
    const kind = element.name === 'linearGradient' ? 'linear' : 'radial';
    const mean = meanOfStops(
      stops.map(({ at, colour, opacity }) => ({ offset: at, rgba: [...channelsOf(colour), opacity] })),
    );
    const paint = meanPaint(mean, stops.length === 1 ? null : 'gradient');
    return { ...paint, gradient: { kind, attributes: own, stops } };
  }

  /** A gradient's own stops, none of which lies before the one that it follows; null where it has none. */
  private stops(element: SvgElement): FadeStop[] | null {
    let last = 0;
    const stops = element.children
      .filter(({ name }) => name === 'stop')
      .map((stop) => {
        const read = this.stop(stop);
        last = Math.min(1, Math.max(last, read.at));
        return { ...read, at: last };
      });
    return stops.length > 0 ? stops : null;
  }

  private stop(element: SvgElement): FadeStop {
    const own = this.sheet.declarationsOf(element);
    const read = readColour(own['stop-color'] ?? '#000000') ?? { colour: '#000000', alpha: 1 };
    const opacity = read.alpha * readShare(own['stop-opacity'], 1);
    return { at: readShare(element.attributes.offset, 0), colour: read.colour, opacity };
  }

  /** The mean of what a pattern's parts are filled with, each weighing the same. */
  private pattern(element: SvgElement, seen: Set<SvgElement>): ReadPaint {
    if (element.children.length === 0) {
      const other = this.inherited(element);
      return other ? this.server(other, seen) : none;
    }
    const colours: number[][] = [];
    for (const part of everyElement(element)) {
      const { fill, stroke } = this.sheet.declarationsOf(part);
      for (const said of [fill, stroke]) {
        const read = said === undefined || said === 'none' ? null : readColour(said);
        if (read) colours.push([...channelsOf(read.colour), read.alpha]);
      }
    }
    return meanPaint(meanOf(colours) ?? [128, 128, 128, 1], 'pattern');
  }
}

function meanPaint(rgba: readonly number[], trouble: ReadPaint['trouble']): ReadPaint {
  return { colour: colourOfChannels(rgba), alpha: rgba[3], trouble };
}
