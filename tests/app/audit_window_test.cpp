// The audit of a log at the Run station.
#include "app/run/audit_sheet.h"
#include "fixture.h"

#include <QListWidget>

#include <cmath>

using namespace vernal;

class AuditWindowTest : public WindowFixture {
    Q_OBJECT
private slots:
    void init()
    {
        open_demo();
        document().choose_day(3);
        settle();
        window->show_station(4);
        laid_out();
    }
    void a_log_is_audited_and_its_evidence_marked();
    void what_was_found_is_taken_as_a_variant_and_undone();
    void a_generated_day_has_nothing_to_audit();
    void painted_faults_are_found();

private:
    AuditSheet* sheet() { return window->findChild<AuditSheet*>(); }
    void audit()
    {
        if (!find<QPushButton>("showAudit")->isChecked())
            QTest::mouseClick(find<QPushButton>("showAudit"), Qt::LeftButton);
        QVERIFY(QTest::qWaitFor([this] { return sheet()->audit() && !sheet()->runs(); }, 20000));
        laid_out();
    }
    QStringList lines()
    {
        QStringList out;
        auto* list = find<QListWidget>("auditList");
        for (int i = 0; i < list->count(); ++i)
            out << list->item(i)->text();
        return out;
    }
};

void AuditWindowTest::a_log_is_audited_and_its_evidence_marked()
{
    audit();
    QVERIFY2(lines().join('\n').contains("while the sun is down"), qPrintable(lines().join('\n')));
    QVERIFY(lines().join('\n').contains("starts at"));
    auto* list = find<QListWidget>("auditList");
    list->setFocus();
    list->setCurrentRow(0);
    QVERIFY(window->session().marked());
    QCOMPARE(window->session().cursor_s(), window->session().marked()->from_s);
    QVERIFY(find<QLabel>("auditAbout")->text().contains("sure to"));
    window->session().set_units(Units::us());
    QVERIFY(lines().join('\n').contains(QStringLiteral("°F")));
}

void AuditWindowTest::what_was_found_is_taken_as_a_variant_and_undone()
{
    audit();
    const std::size_t variants = job().variants.size();
    QTest::mouseClick(find<QPushButton>("takeFound"), Qt::LeftButton);
    settle();
    QCOMPARE(job().variants.size(), variants + 1);
    QVERIFY(qs(document().variant().name).startsWith(QStringLiteral("as found")));
    QVERIFY(std::fabs(difference().on.in_kelvin() - 6.7) < 0.3);
    document().undo_stack().undo();
    QCOMPARE(job().variants.size(), variants);
}

void AuditWindowTest::a_generated_day_has_nothing_to_audit()
{
    audit();
    document().choose_day(0);
    settle();
    laid_out();
    QVERIFY(!find<QPushButton>("showAudit")->isVisible());
    QVERIFY(!sheet()->isVisible());
}

void AuditWindowTest::painted_faults_are_found()
{
    document().edit_day(QStringLiteral("open"), [this](Day& d) { d.faults = {fresh_fault(FaultKind::probe_open, document().variant(), 9, 11)}; });
    settle();
    audit();
    QVERIFY2(lines().join('\n').contains("no reading"), qPrintable(lines().join('\n')));
    document().undo_stack().undo();
    settle();
    QVERIFY(QTest::qWaitFor([this] { return !sheet()->runs() && !lines().join('\n').contains("no reading"); }, 20000));
}

int main(int argc, char** argv) { return run_window_test<AuditWindowTest>(argc, argv); }
#include "audit_window_test.moc"
