import { dateOrders, numberStyles, type Settings } from '@lambent/contracts';
import { usualFileName } from '@lambent/core/formats';
import { freeOfCharge, pricingFromJson } from '@lambent/core/recipes';
import { lengthUnits, speedUnits } from '@lambent/core/units';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { WriteQueue } from '../data/write-queue.ts';
import { SettingEntity } from './setting.entity.ts';

/** How a setting is kept as text, and what holds where it is not. */
interface Kept<T> {
  readonly usual: T;
  /** What was kept; the usual value where that is none that Lambent knows. */
  readonly read: (text: string) => T;
  readonly write: (value: T) => string;
}

function words(usual: string): Kept<string> {
  return { usual, read: (text) => text, write: (value) => value.trim() };
}

function oneOf<T extends string>(known: readonly T[], usual: T): Kept<T> {
  return { usual, read: (text) => known.find((word) => word === text) ?? usual, write: (value) => value };
}

const yesOrNo: Kept<boolean> = {
  usual: false,
  read: (text) => text === 'yes',
  write: (isSo) => (isSo ? 'yes' : 'no'),
};

const settings: { readonly [Name in keyof Settings]: Kept<Settings[Name]> } = {
  shopName: words(''),
  people: { usual: [], read: JSON.parse, write: (people) => JSON.stringify(people.map((name) => name.trim())) },
  fileNames: words(usualFileName),
  pricing: {
    usual: freeOfCharge,
    read: (text) => pricingFromJson(JSON.parse(text)),
    write: (pricing) => JSON.stringify(pricingFromJson(pricing)),
  },
  speedUnit: oneOf(speedUnits, 'mm/s'),
  lengthUnit: oneOf(lengthUnits, 'mm'),
  dates: oneOf(dateOrders, 'day first'),
  numbers: oneOf(numberStyles, 'point'),
  backupDays: { usual: 14, read: Number, write: String },
  opensAt: words('09:00'),
  closesAt: words('18:00'),
  openDays: { usual: [1, 2, 3, 4, 5], read: JSON.parse, write: JSON.stringify },
  setUpMinutes: { usual: 5, read: Number, write: String },
  timeZone: words(''),
  quoteDays: { usual: 14, read: Number, write: String },
  quoteTerms: words(''),
  sendingMb: { usual: 10, read: Number, write: String },
  mailAddress: words(''),
  isSetUp: yesOrNo,
  isDemo: yesOrNo,
};
const names = Object.keys(settings) as (keyof Settings)[];

/** What the shop has settled for every job, each with a usual value where it has not. */
@Injectable()
export class SettingsService {
  constructor(
    @InjectRepository(SettingEntity) private readonly rows: Repository<SettingEntity>,
    private readonly writes: WriteQueue,
  ) {}

  async get(): Promise<Settings> {
    const kept = new Map((await this.rows.find()).map(({ name, value }) => [name, value]));
    const keptOf = <Name extends keyof Settings>(name: Name): Settings[Name] => {
      const text = kept.get(name);
      return text === undefined ? settings[name].usual : settings[name].read(text);
    };
    return Object.fromEntries(names.map((name) => [name, keptOf(name)])) as unknown as Settings;
  }

  /** Settles what is sent, and leaves the rest. @throws NotAPriceList */
  async settle(sent: Partial<Settings>): Promise<Settings> {
    const row = <Name extends keyof Settings>(name: Name) => {
      const value = sent[name] as Settings[Name] | null | undefined;
      return value === undefined || value === null ? [] : [{ name, value: settings[name].write(value) }];
    };
    await this.writes.do('settle', names.flatMap(row));
    return this.get();
  }
}
