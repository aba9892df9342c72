import { EditPage } from '@/screens/student/EditPage';

export const metadata = { title: 'New student' };

export default function NewStudentPage() {
  return <EditPage student={null} />;
}
