import { pictureFile } from '@lambent/core/formats';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, sentenceOf } from '../api.ts';
import { Button } from '../ui/button.tsx';
import { t } from '../words/words.ts';

interface Props {
  pictureId: string | undefined;
  /** Of what it is a picture. */
  title: string;
  keep: (pictureId: string | undefined) => void;
}

/** A picture of what comes of a recipe: shown, chosen from a file, taken away. */
export function RecipePicture({ pictureId, title, keep }: Props) {
  const [missing, setMissing] = useState(false);
  const choose = async (file: File | undefined) => {
    if (!file) return;
    try {
      const { id, bytes } = pictureFile(new Uint8Array(await file.arrayBuffer()));
      await api.keepPicture(id, bytes);
      setMissing(false);
      keep(id);
    } catch (error) {
      toast.error(
        t('{{name}} was not kept. {{error}} Choose a photo as PNG or JPEG.', {
          name: file.name,
          error: sentenceOf(error),
        }),
      );
    }
  };
  return (
    <div className="flex items-start gap-3">
      {pictureId && !missing ? (
        <img
          src={`/api/pictures/${pictureId}`}
          alt={t('What comes of {{title}}', { title })}
          onError={() => setMissing(true)}
          className="max-h-36 max-w-56 rounded-lg border border-line bg-raised object-contain"
        />
      ) : (
        <p className="text-[12px] text-quiet">
          {missing ? t('Its picture is not on this server: choose it again.') : t('No picture of the result yet.')}
        </p>
      )}
      <div className="flex flex-col items-start">
        <label className="cursor-pointer rounded-lg px-3 py-1.5 font-semibold text-petrol hover:bg-petrol-soft focus-within:outline-2 focus-within:outline-petrol">
          {pictureId ? t('Another picture') : t('Add a picture')}
          <input
            type="file"
            accept="image/png,image/jpeg"
            className="sr-only"
            onChange={(event) => {
              void choose(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </label>
        {pictureId && (
          <Button look="quiet" onClick={() => keep(undefined)}>
            {t('Take it away')}
          </Button>
        )}
      </div>
    </div>
  );
}
