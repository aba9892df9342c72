import { useRouter } from 'next/navigation';
import { toast } from 'sonner';
import { giveFor } from '@/screens/work/actions';

/** Gives the work that the catalogue has for a leak; where something speaks against it the work page asks. */
export function useGiveWork() {
  const router = useRouter();
  return async (leak: {
    readonly studentId: string;
    readonly technique: string;
    readonly fault: string;
  }): Promise<void> => {
    try {
      const { studentId, technique, fault } = leak;
      const outcome = await giveFor({ studentId, technique, fault });
      if (outcome.kind === 'given') toast('The work is given; it is looked at again in a week.');
      else if (outcome.kind === 'refused') toast(outcome.reason);
      else router.push(`/students/${studentId}/work`);
    } catch {
      toast('Not given: the server does not answer. Try again.');
    }
  };
}
