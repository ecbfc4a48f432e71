'use client';
import { useEffect, useState } from 'react';
import { microphones } from '../../audio/input';
import { Choice } from '../kit/Choice';
import { useStored } from '../kit/useStored';
import { DEVICE_KEY } from './sources';
import { useLanguage } from '../language/language';

/** Which microphone is listened to, where there are several; the choice is remembered on this device. */
export function MicrophoneChoice({ onChange, disabled }: { onChange: () => void; disabled: boolean }) {
  const { t } = useLanguage();
  const [found, setFound] = useState<{ id: string; name: string }[]>([]);
  const [chosen, choose] = useStored<string>(DEVICE_KEY, '');
  useEffect(() => {
    const look = () => void microphones().then(setFound);
    look();
    navigator.mediaDevices?.addEventListener('devicechange', look);
    return () => navigator.mediaDevices?.removeEventListener('devicechange', look);
  }, [disabled]);
  if (found.length < 2) return null;
  return (
    <Choice
      label={t('Which microphone')}
      value={found.some((d) => d.id === chosen) ? chosen : found[0].id}
      options={found.map((d) => [d.id, d.name] as const)}
      disabled={disabled}
      onChange={(id) => {
        choose(id);
        onChange();
      }}
    />
  );
}
