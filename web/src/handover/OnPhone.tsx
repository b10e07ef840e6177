import { useEffect, useState } from 'react';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'antd';
import { Smartphone } from 'lucide-react';
import dayjs from 'dayjs';
import { toString } from 'qrcode';
import type { PublishedSite } from '@elastic-folio/core/api';
import { api } from '../api/client.ts';
import { inWords } from '../api/untilAnswered.ts';
import { useDocument } from '../document/documentStore.ts';

/** Lets phones in the same network open what is shown, for a while. */
export function OnPhone({ site }: { site: PublishedSite }) {
  const complain = useDocument((s) => s.complain);
  const client = useQueryClient();
  const told = useQuery({ queryKey: ['phone', site.id], queryFn: () => api.phone(site.id), refetchInterval: 30_000 }).data;
  const settle = {
    onSuccess: () => client.invalidateQueries({ queryKey: ['phone', site.id] }),
    onError: (e: Error) => complain(inWords(e)),
  };
  const open = useMutation({ mutationFn: () => api.openPhone(site.id), ...settle });
  const close = useMutation({ mutationFn: () => api.closePhone(site.id), ...settle });
  const version = site.versions.find((v) => v.number === site.shown);
  const phone = told?.phone;
  const [first] = phone?.addresses ?? [];
  if (!phone)
    return (
      <div className="on-phone">
        <Button icon={<Smartphone size={14} />} loading={open.isPending} onClick={() => open.mutate()}>
          Open on a phone …
        </Button>
        <div>
          {told?.closedForWrongCodes && (
            <p role="status">
              It was closed before its time: too many wrong codes came from this network. Opened again, it has a new address.
            </p>
          )}
          <p className="soft">For half an hour, phones in this network can open this edition, and nothing else of this program.</p>
        </div>
      </div>
    );
  return (
    <div className="on-phone open">
      {first && <Code address={first} />}
      <div>
        {first ? (
          <p>
            Point the phone’s camera here, or type
            <br />
            {phone.addresses.map((a) => (
              <code key={a}>{a}</code>
            ))}
          </p>
        ) : (
          <p>This machine is in no network now, so that no phone finds it. Join one, and open it again.</p>
        )}
        <p className="soft">
          Open until {dayjs(phone.until).format('H:mm')}. Whoever has this address and is in this network can read this edition.
        </p>
        {version && version.secure.length > 0 && (
          <p>
            Not available there, because this connection is not secure:{' '}
            {version.secure.map((w) => w[0]!.toLowerCase() + w.slice(1)).join(', ')}.
          </p>
        )}
        <Button size="small" onClick={() => close.mutate()}>
          Close it
        </Button>
      </div>
    </div>
  );
}

function Code({ address }: { address: string }) {
  const [svg, setSvg] = useState('');
  useEffect(() => {
    let here = true;
    void toString(address, { type: 'svg', margin: 2, color: { dark: '#22302c', light: '#ffffff' } }).then((s) => here && setSvg(s));
    return () => void (here = false);
  }, [address]);
  return (
    <img
      className="code"
      width={148}
      height={148}
      alt={`A code that opens ${address}`}
      src={svg && `data:image/svg+xml,${encodeURIComponent(svg)}`}
    />
  );
}
