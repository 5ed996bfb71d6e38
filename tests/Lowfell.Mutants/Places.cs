using System.Globalization;
using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;

namespace Lowfell.Mutants;

/// <summary>
/// Everything in a file that could be wrong: comparisons turned, terms, filters, checks and calls left out, constants a tenth off, methods
/// that end at once.
/// </summary>
public static class Places
{
    private static readonly Dictionary<SyntaxKind, string> turned = new()
    {
        [SyntaxKind.LessThanExpression] = ">",
        [SyntaxKind.LessThanOrEqualExpression] = ">=",
        [SyntaxKind.GreaterThanExpression] = "<",
        [SyntaxKind.GreaterThanOrEqualExpression] = "<=",
        [SyntaxKind.EqualsExpression] = "!=",
        [SyntaxKind.NotEqualsExpression] = "==",
    };

    private static readonly HashSet<SyntaxKind> sums =
    [
        SyntaxKind.AddExpression, SyntaxKind.SubtractExpression, SyntaxKind.MultiplyExpression, SyntaxKind.DivideExpression,
        SyntaxKind.LogicalAndExpression, SyntaxKind.LogicalOrExpression,
    ];

    private static readonly HashSet<string> filters = ["Where", "Take", "Skip", "Distinct", "OrderBy", "OrderByDescending", "Reverse"];

    private sealed record Fault(string Kind, Func<int, string> Instead, string Says);

    public static IEnumerable<Place> Of(string file, string text)
    {
        var root = CSharpSyntaxTree.ParseText(text).GetRoot();
        foreach (var node in root.DescendantNodes().Where(n => !IsFixed(n)))
            foreach (var fault in Faults(node))
                yield return new Place(file, node.SpanStart, node.Span.Length, node.GetLocation().GetLineSpan().StartLinePosition.Line + 1, fault.Kind, fault.Instead, fault.Says, IsOnce(node));
    }

    /// <summary>Part of something static that is worked out when it is first touched. A constant is asked each time once it has a switch.</summary>
    private static bool IsOnce(SyntaxNode node) => node is not FieldDeclarationSyntax
        && node.Ancestors().TakeWhile(a => a is not (AnonymousFunctionExpressionSyntax or MethodDeclarationSyntax or AccessorDeclarationSyntax or ArrowExpressionClauseSyntax)).Any(a =>
            a is FieldDeclarationSyntax field && field.Modifiers.Any(SyntaxKind.StaticKeyword)
            || a is PropertyDeclarationSyntax { Initializer: not null } property && property.Modifiers.Any(SyntaxKind.StaticKeyword)
            || a is ConstructorDeclarationSyntax constructor && constructor.Modifiers.Any(SyntaxKind.StaticKeyword));

    /// <summary>What must be a constant, or is only said.</summary>
    private static bool IsFixed(SyntaxNode node) => node.Ancestors().Any(a => a is AttributeSyntax or EnumMemberDeclarationSyntax or ParameterSyntax or CaseSwitchLabelSyntax or PatternSyntax or InterpolatedStringExpressionSyntax
        || a is FieldDeclarationSyntax field && field.Modifiers.Any(SyntaxKind.ConstKeyword)
        || a is LocalDeclarationStatementSyntax local && local.Modifiers.Any(SyntaxKind.ConstKeyword));

    private static IEnumerable<Fault> Faults(SyntaxNode node)
    {
        // A statement in braces: an else after it belongs to what it did.
        Func<int, string> Switch(string faulty) => n => $"({On(n)} ? ({faulty}) : ({node}))";
        return node switch
        {
            BinaryExpressionSyntax b when turned.TryGetValue(b.Kind(), out var sign) && !b.Right.IsKind(SyntaxKind.NullLiteralExpression) =>
                [new("comparison", Switch($"{b.Left} {sign} {b.Right}"), $"{b.Left} {sign} {b.Right}")],
            BinaryExpressionSyntax b when sums.Contains(b.Kind()) && !b.DescendantNodes().Any(d => d.IsKind(SyntaxKind.StringLiteralExpression) || Names(d)) =>
                [new("term", Switch(b.Left.ToString()), $"without {b.OperatorToken} {b.Right}")],
            InvocationExpressionSyntax { Expression: MemberAccessExpressionSyntax m } when filters.Contains(m.Name.Identifier.Text) =>
                [new("filter", Switch(m.Expression.ToString()), $"without .{m.Name.Identifier.Text}(…)")],
            IfStatementSyntax { Else: null } i when Ends(i.Statement) && !i.Condition.DescendantNodesAndSelf().Any(Names) =>
                [new("check", n => $"{{ if (!{On(n)} && ({i.Condition})) {i.Statement} }}", $"never if ({i.Condition})")],
            ExpressionStatementSyntax { Expression: InvocationExpressionSyntax call } s when !call.DescendantNodes().Any(Names) =>
                [new("call", n => $"{{ if (!{On(n)}) {s} }}", $"without {call}")],
            FieldDeclarationSyntax f when f.Modifiers.Any(SyntaxKind.ConstKeyword) => Constants(f),
            LiteralExpressionSyntax l when l.IsKind(SyntaxKind.NumericLiteralExpression) && Off(l.Token) is { } off => [new("constant", Switch(off), $"{off} for {l}")],
            BlockSyntax { Parent: MethodDeclarationSyntax method, Statements.Count: > 1 } body when IsNothing(method) =>
                [new("early return", n => $"{{ if ({On(n)}) return; {body.ToString()[1..]}", $"{method.Identifier} ends at once")],
            _ => [],
        };
    }

    private static string On(int number) => $"global::Lowfell.Mutants.On({number})";

    /// <summary>Gives a name to what it finds: left out, what comes after would not know it.</summary>
    private static bool Names(SyntaxNode node) => node is DeclarationPatternSyntax or DeclarationExpressionSyntax or VarPatternSyntax or RecursivePatternSyntax { Designation: not null };

    private static bool IsNothing(MethodDeclarationSyntax method) => method.ReturnType is PredefinedTypeSyntax type && type.Keyword.IsKind(SyntaxKind.VoidKeyword)
        || method.Modifiers.Any(SyntaxKind.AsyncKeyword) && method.ReturnType.ToString() == "Task";

    /// <summary>One constant of a declaration, a tenth off; those beside it stay as they are.</summary>
    private static IEnumerable<Fault> Constants(FieldDeclarationSyntax field)
    {
        var shown = string.Join(' ', field.Modifiers.Where(m => !m.IsKind(SyntaxKind.ConstKeyword)).Select(m => m.Text));
        foreach (var one in field.Declaration.Variables)
            if (one.Initializer?.Value is LiteralExpressionSyntax value && Off(value.Token) is { } off)
            {
                var others = string.Join(", ", field.Declaration.Variables.Where(v => v != one));
                yield return new("constant", n => $"{shown} static {field.Declaration.Type} {one.Identifier} => {On(n)} ? {off} : {value};{(others.Length > 0 ? $" {shown} const {field.Declaration.Type} {others};" : "")}", $"{one.Identifier} {off} for {value}");
            }
    }

    private static bool Ends(StatementSyntax statement) => statement switch
    {
        BlockSyntax { Statements: [var one] } => Ends(one),
        ReturnStatementSyntax or ThrowStatementSyntax or ContinueStatementSyntax or BreakStatementSyntax => true,
        _ => false,
    };

    /// <summary>A number a tenth off; a whole one by a tenth, and by one at the least. None and one are counts more often than figures, and are left.</summary>
    private static string? Off(SyntaxToken number) => number.Value switch
    {
        double d when d is not (0 or 1) => (d * 1.1).ToString("R", CultureInfo.InvariantCulture) + "d",
        decimal m when m is not (0 or 1) => (m * 1.1m).ToString(CultureInfo.InvariantCulture) + "m",
        int i when i > 1 => (i + Math.Max(1, i / 10)).ToString(CultureInfo.InvariantCulture),
        _ => null,
    };
}
