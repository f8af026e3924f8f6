'use client';

import { Popover } from 'antd';
import type { ReactElement, ReactNode } from 'react';

interface OnDemandPopoverProps {
  open: boolean;
  onOpenChange: (open: boolean) => void;
  content: ReactNode;
  children: ReactElement;
}

/**
 * A popover that exists only while it is open. Dozens stand on a sheet, and each would cost time at
 * every edit.
 */
export function OnDemandPopover({ open, onOpenChange, content, children }: OnDemandPopoverProps) {
  if (!open) return children;
  return (
    <Popover trigger="click" open destroyOnHidden onOpenChange={onOpenChange} content={content}>
      {children}
    </Popover>
  );
}
