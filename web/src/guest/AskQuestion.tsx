import { useState } from 'react';
import { Button, Input, Popover } from 'antd';

/** A question to whoever sent the job. */
export function AskQuestion({ onAsk }: { onAsk: (text: string) => void }) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  return (
    <Popover
      open={open}
      onOpenChange={setOpen}
      trigger="click"
      placement="bottomRight"
      content={
        <form
          className="ask-question"
          onSubmit={(e) => {
            e.preventDefault();
            if (!text.trim()) return;
            onAsk(text.trim());
            setText('');
            setOpen(false);
          }}
        >
          <Input.TextArea
            aria-label="Your question"
            autoSize={{ minRows: 3, maxRows: 8 }}
            maxLength={5000}
            value={text}
            onChange={(e) => setText(e.target.value)}
          />
          <Button type="primary" htmlType="submit" disabled={!text.trim()}>
            Send the question
          </Button>
        </form>
      }
    >
      <Button>Ask a question</Button>
    </Popover>
  );
}
