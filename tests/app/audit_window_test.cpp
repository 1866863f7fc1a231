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
    void what_it_shows_stands_among_the_findings();
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

void AuditWindowTest::what_it_shows_stands_among_the_findings()
{
    audit();
    const auto kinds = [this] {
        QStringList out;
        for (const Finding& f : window->session().findings())
            out << QString::fromUtf8(f.kind);
        return out;
    };
    QVERIFY(QTest::qWaitFor([&] { return kinds().contains(QStringLiteral("runs_at_night")); }, 20000));
    QVERIFY(kinds().contains(QStringLiteral("other_pair_in_log")));
    const auto& found = window->session().findings();
    QVERIFY(std::is_sorted(found.begin(), found.end(), [](const Finding& a, const Finding& b) { return a.severity < b.severity; }));
    window->findChild<WorkView*>()->show_findings(true);
    laid_out();
    QTest::mouseClick(find<QPushButton>("showSeen"), Qt::LeftButton);
    QVERIFY(window->session().marked());
    QCOMPARE(window->session().cursor_s(), window->session().marked()->from_s);
    const auto pair = std::find_if(found.begin(), found.end(), [](const Finding& f) { return std::string_view(f.kind) == "other_pair_in_log"; });
    QVERIFY(pair->remedy && pair->at.starts_with("rule/"));
    document().edit_variant(QStringLiteral("take"), pair->remedy->apply);
    QVERIFY(std::fabs(difference().on.in_kelvin() - 6.7) < 0.3);
    document().choose_day(0);
    settle();
    QVERIFY2(!kinds().contains(QStringLiteral("runs_at_night")), "a generated day has no log");
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
