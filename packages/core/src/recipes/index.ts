export { changesInWords, recipeTitle } from './book/book-changes.ts';
export { bookToCsv, readBookCsv } from './book/book-csv.ts';
export { bookFromText, bookToText, materialFromJson, NotABook, recipeFromJson } from './book/book-json.ts';
export { type Figure, type FigureFrom, type FigureSource, figureSources } from './book/figures.ts';
export { fitOf, kerfOf, playsOf } from './book/learnt.ts';
export { type Material, thicknessOf } from './book/material.ts';
export { formatMoney, freeOfCharge, NotAPriceList, type Pricing, pricingFromJson } from './book/pricing.ts';
export { type Evidence, evidences, type Proof, type Recipe, recipeKey, settingsInRecipe } from './book/recipe.ts';
export { type Shop, sheetAsStocked, sheetMarginMm } from './book/shop.ts';
export { NotAShop, shopFromJson } from './book/shop-json.ts';
export { type StartingMaterial, startingMaterials } from './book/starting-materials.ts';
export { addOffcut, outlineFault, putSheetBack, type StockedSheet, stockOf, takeSheet } from './book/stock.ts';
export { BurntCode, type BurntPicture, lookOf } from './cards/burnt-picture.ts';
export { cardSettingOf } from './cards/card-setting.ts';
export { cardKinds, cardWish, safeWords } from './cards/card-wish.ts';
export { burntGreysOf, type GreyStep, greySteps, hasGreySteps } from './cards/grey-steps.ts';
export {
  type CardCell,
  type CardMargin,
  cardLayers,
  cellName,
  cellsThatFit,
  closerCard,
  layCard,
  marginsAround,
  markBy,
  markNames,
  type TestCard,
  valuesAlong,
} from './cards/test-card.ts';
export { type AppliedSettings, findRecipe, type SettingSource } from './in-force/apply.ts';
export { type BurnShares, burnShares } from './in-force/burn-shares.ts';
export { energyPerMm } from './in-force/energy.ts';
export { type Burn, relatedBurns } from './in-force/work-out.ts';
