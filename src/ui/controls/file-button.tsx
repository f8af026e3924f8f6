import { Button, type ButtonProps } from 'antd';
import { useRef } from 'react';

interface FileButtonProps extends Pick<ButtonProps, 'icon' | 'size' | 'disabled' | 'children'> {
  /** What is chosen, for those who do not see the button. */
  label: string;
  accept: string;
  multiple?: boolean;
  onFiles: (files: File[]) => void;
}

/** A button that lets files be chosen. The same file can be chosen again. */
export function FileButton({ label, accept, multiple, onFiles, ...button }: FileButtonProps) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button {...button} onClick={() => picker.current?.click()} />
      <input
        ref={picker}
        type="file"
        accept={accept}
        multiple={multiple}
        className="visually-hidden"
        tabIndex={-1}
        aria-label={label}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = '';
          if (files.length > 0) onFiles(files);
        }}
      />
    </>
  );
}
