import { Button } from 'antd';
import { ImagePlus, X } from 'lucide-react';
import { useCallback, useEffect, useMemo } from 'react';
import { addPicture, pictureOf, removePicture } from '@/store/pictures';
import { useLiveQuery } from '@/store/live';
import { FileButton } from '@/ui/controls/file-button';
import { attemptStored } from '../shell/tell';
import styles from './book.module.css';

/** The pictures beside a line, and how further ones come there: chosen, dropped or pasted. */
export function Pictures({ entry, pictures }: { entry: string; pictures: readonly string[] }) {
  const add = async (files: Iterable<File>) => {
    for (const file of files)
      await attemptStored('The picture was not put in', async () =>
        addPicture(entry, new Uint8Array(await file.arrayBuffer())),
      );
  };
  return (
    <div
      className={styles.pictures}
      role="group"
      aria-label="Pictures"
      onPaste={(e) => void add(e.clipboardData.files)}
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault();
        void add([...e.dataTransfer.files]);
      }}
    >
      {pictures.map((id, i) => (
        <Picture
          key={id}
          id={id}
          name={`Picture ${i + 1}`}
          onRemove={() => void remove(entry, id)}
        />
      ))}
      <FileButton
        size="small"
        icon={<ImagePlus size={14} />}
        label="Pictures to add"
        accept="image/png,image/jpeg,image/webp"
        multiple
        onFiles={(files) => void add(files)}
      >
        Add a picture
      </FileButton>
    </div>
  );
}

const remove = (entry: string, id: string) =>
  attemptStored('The picture was not removed', () => removePicture(entry, id));

function Picture({ id, name, onRemove }: { id: string; name: string; onRemove: () => void }) {
  const picture = useLiveQuery(useCallback(() => pictureOf(id), [id]));
  const url = useMemo(
    () =>
      picture &&
      URL.createObjectURL(new Blob([Uint8Array.from(picture.bytes)], { type: picture.type })),
    [picture],
  );
  useEffect(() => () => void (url && URL.revokeObjectURL(url)), [url]);
  return (
    <figure className={styles.picture}>
      {url && (
        <a href={url} target="_blank" rel="noreferrer">
          <img src={url} alt={name} />
        </a>
      )}
      <Button
        size="small"
        type="text"
        icon={<X size={12} />}
        aria-label={`Remove ${name.toLowerCase()}`}
        onClick={onRemove}
      />
    </figure>
  );
}
