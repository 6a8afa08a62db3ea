import { burntItems, type Check, countOf, finding, ifAny } from './finding.ts';

/** Paints that neither the key nor the job gives a meaning. */
export const checkColours: Check = ({ meaning, key }) => {
  const undecided = meaning.paints.filter((use) => use.layerId === null);
  const open = new Set(meaning.undecided.map((item) => item.id));
  return undecided.flatMap((use) => {
    const ids = use.itemIds.filter((id) => open.has(id));
    if (ids.length === 0) return [];
    const what = use.part === 'fill' ? `the fill ${use.colour}` : `${use.colour} at ${use.widthMm} mm`;
    return [
      {
        ...finding(
          'colour-without-meaning',
          'blocks',
          `${countOf(ids.length, 'item has', 'items have')} ${what}, which means nothing in “${key.name}” and would not be burnt. Say what it means; choose Note if it should not burn.`,
        ),
        itemIds: ids,
      },
    ];
  });
};

/** A job with nothing on a layer that burns, and layers that are switched off. */
export const checkBurnable: Check = (prepared) => {
  const off = prepared.layers.filter(
    ({ layer, on }) => !on && (prepared.meaning.placed.get(layer.id) ?? []).length > 0,
  );
  return [
    ...(burntItems(prepared).length === 0 && prepared.meaning.undecided.length === 0
      ? [
          finding(
            'nothing-to-burn',
            'blocks',
            'Nothing in this job burns yet. Bring in a drawing and say what its colours mean.',
          ),
        ]
      : []),
    ...off.map(({ layer }) =>
      finding('layer-off', 'notes', `${layer.name} is switched off and is left out of this run.`, [], layer.id),
    ),
  ];
};

/** What is in the job and will not burn without anybody having said so in this job. */
export const checkUnseen: Check = ({ job }) => {
  const hidden = job.drawing.items.filter((item) => item.hidden);
  const pictures = job.drawing.items.filter((item) => !item.hidden && item.shape.kind === 'picture');
  return [
    ...ifAny(hidden, () =>
      finding(
        'hidden-parts',
        'notes',
        `${countOf(hidden.length, 'part is hidden and does', 'parts are hidden and do')} not burn. The Art drawer lists what is hidden and brings it in.`,
        hidden,
      ),
    ),
    ...ifAny(pictures, () =>
      finding(
        'picture-not-burnt',
        'warns',
        `${countOf(pictures.length, 'picture is shown and does', 'pictures are shown and do')} not burn: this Lambent burns lines and filled outlines only.`,
        pictures,
      ),
    ),
  ];
};
