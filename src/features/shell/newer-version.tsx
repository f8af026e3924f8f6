import { Button, Popover } from 'antd';
import { ArrowDownToLine } from 'lucide-react';
import { useState } from 'react';
import { takeNewer, useProgram } from './program';
import { refuse } from './tell';
import styles from './rail.module.css';

/** Says that a newer version of the program is here; it is taken when the person likes. */
export function NewerVersion() {
  const { newer, overtaken } = useProgram();
  const [open, setOpen] = useState(false);
  if (newer === null && !overtaken) return null;
  const take = async () => {
    if (!(await takeNewer()))
      refuse('The last edits could not be stored: the newer version was not taken.');
  };
  return (
    <Popover
      trigger="click"
      placement="rightBottom"
      open={open}
      onOpenChange={setOpen}
      title={overtaken ? 'Another tab has taken a newer version' : 'A newer version is ready'}
      content={
        <div className={styles.newer}>
          <p>
            {overtaken
              ? 'This tab goes on in the earlier one, and all is stored as before.'
              : 'What is open here is stored first. Other tabs go on in the present version until they are loaded anew.'}
          </p>
          <span>
            <Button type="primary" size="small" onClick={() => void take()}>
              {overtaken ? 'Load this tab anew' : 'Take it now'}
            </Button>
            <Button type="text" size="small" onClick={() => setOpen(false)}>
              Later
            </Button>
          </span>
        </div>
      }
    >
      <button type="button" className={`${styles.item} ${styles.told}`} aria-label="Newer version">
        <ArrowDownToLine size={18} strokeWidth={1.6} aria-hidden />
        Newer
      </button>
    </Popover>
  );
}
