export { type AppliedSettings, findRecipe, type SettingSource } from './apply.ts';
export { changesInWords, recipeTitle } from './book-changes.ts';
export { bookToCsv, readBookCsv } from './book-csv.ts';
export { bookFromText, bookToText, materialFromJson, NotABook, recipeFromJson } from './book-json.ts';
export { BurntCode, type BurntPicture, lookOf } from './burnt-picture.ts';
export { cardKinds, cardWish } from './card-wish.ts';
export { energyPerMm } from './energy.ts';
export { type Figure, type FigureFrom, type FigureSource, figureSources } from './figures.ts';
export { fitOf, kerfOf } from './learnt.ts';
export { type Material, thicknessOf } from './material.ts';
export { formatMoney, freeOfCharge, NotAPriceList, type Pricing, pricingFromJson } from './pricing.ts';
export { type Evidence, evidences, type Proof, type Recipe, recipeKey, settingsInRecipe } from './recipe.ts';
export { type Shop, sheetAsStocked } from './shop.ts';
export { NotAShop, shopFromJson } from './shop-json.ts';
export { addOffcut, offcutLeft, putSheetBack, type StockedSheet, stockOf, takeSheet } from './stock.ts';
export {
  type CardCell,
  type CardMargin,
  cardLayers,
  cardSettingNames,
  cellName,
  cellsThatFit,
  closerCard,
  layCard,
  marginsAround,
  markBy,
  markNames,
  type TestCard,
  valuesAlong,
} from './test-card.ts';
export { type Burn, relatedBurns } from './work-out.ts';
