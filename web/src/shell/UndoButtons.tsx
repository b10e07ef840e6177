import { Button, Tooltip } from 'antd';
import { Redo2, Undo2 } from 'lucide-react';
import { useDocument } from '../document/documentStore.ts';

/** Takes steps back and brings them back. */
export function UndoButtons() {
  const undo = useDocument((s) => s.undo.length > 0);
  const redo = useDocument((s) => s.redo.length > 0);
  const { undoStep, redoStep } = useDocument.getState();
  return (
    <>
      <Tooltip title="Undo (Ctrl Z)">
        <Button type="text" icon={<Undo2 size={16} />} aria-label="Undo" disabled={!undo} onClick={() => void undoStep()} />
      </Tooltip>
      <Tooltip title="Redo (Ctrl Y)">
        <Button type="text" icon={<Redo2 size={16} />} aria-label="Redo" disabled={!redo} onClick={() => void redoStep()} />
      </Tooltip>
    </>
  );
}
