import { bytesOfMb, type DropOffAnswer, type OfferedMaterial } from '@lambent/contracts';
import { drawingRules } from '@lambent/core/formats';
import { atWork } from '@lambent/core/machine';
import { type Material, sheetMarginMm } from '@lambent/core/recipes';
import { Injectable } from '@nestjs/common';
import { PlainError } from '../common/plain-error.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { ShopService } from '../shop/shop.service.ts';
import { WorkService } from '../work/work.service.ts';

/** What the shop tells anybody: what it burns, how large, and how to draw for it. */
@Injectable()
export class OfferService {
  constructor(
    private readonly shop: ShopService,
    private readonly settings: SettingsService,
    private readonly work: WorkService,
  ) {}

  /** What anybody may know of the shop. */
  async about(): Promise<DropOffAnswer> {
    const [{ machines, keys, materials }, { shopName, pricing, mailAddress, sendingMb }] = await Promise.all([
      this.shop.everything(),
      this.settings.get(),
    ]);
    const working = keys.length > 0 ? atWork(machines) : [];
    return {
      shopName,
      currency: pricing.currency,
      materials: materials.filter(({ forbidden, archived }) => !forbidden && !archived).map(offeredMaterial),
      rules: working.length > 0 ? drawingRules(keys[0]) : [],
      hairlineMm: keys[0]?.hairlineMm ?? null,
      marginMm: sheetMarginMm,
      largestMb: sendingMb,
      writesMails: mailAddress !== '',
      bed:
        working.length === 0
          ? null
          : {
              width: Math.max(...working.map(({ bedWidth }) => bedWidth)),
              height: Math.max(...working.map(({ bedHeight }) => bedHeight)),
            },
    };
  }

  /** @throws PlainError 413 where a file is larger than the shop takes */
  async expectSmall(bytes: Uint8Array): Promise<void> {
    const { sendingMb } = await this.settings.get();
    if (bytes.length > bytesOfMb(sendingMb))
      throw new PlainError(413, 'too-large', `A file has ${sendingMb} MB at most.`);
  }

  /** A page as large as the largest bed, to draw on. @throws PlainError 409 where the shop has no machine */
  async template(format: 'svg' | 'pdf'): Promise<Uint8Array> {
    const [{ bed, shopName }, { keys }] = await Promise.all([this.about(), this.shop.everything()]);
    if (!bed) throw noMachine();
    return this.work.drawingTemplate({ bed, key: keys[0], title: shopName, format });
  }
}

/** What is said where nothing can be burnt yet. */
export function noMachine(): PlainError {
  return new PlainError(409, 'no-machine', 'This workshop takes no drawings yet: it has no machine.');
}

function offeredMaterial({
  id,
  name,
  thicknessMm,
  tone,
  sheetWidth,
  sheetHeight,
  leastSizes,
}: Material): OfferedMaterial {
  const leastWallMm = leastSizes?.cut?.detailMm ?? 0;
  const leastLetterMm = leastSizes?.engrave?.letterMm ?? 0;
  return { id, name, thicknessMm, tone, sheetWidth, sheetHeight, leastWallMm, leastLetterMm };
}
