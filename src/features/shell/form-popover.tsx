import { Popover } from 'antd';
import { Suspense, type ReactElement, type ReactNode } from 'react';
import { Coming } from './coming';

interface FormPopoverProps {
  /** The form; it may be fetched when it is opened. */
  content: ReactNode;
  /** The button that it belongs to. */
  children: ReactElement;
  open?: boolean;
  onOpenChange?: (open: boolean) => void;
}

/** A small form over the button that opens it, begun anew each time. */
export function FormPopover({ content, children, ...opening }: FormPopoverProps) {
  return (
    <Popover
      trigger="click"
      placement="topLeft"
      destroyOnHidden
      {...opening}
      content={<Suspense fallback={<Coming />}>{content}</Suspense>}
    >
      {children}
    </Popover>
  );
}
